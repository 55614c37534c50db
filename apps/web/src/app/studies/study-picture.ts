import { ChangeDetectionStrategy, Component, effect, inject, input, signal } from '@angular/core';
import type { SmallPicture as Picture, Study } from '@pebble/contract';
import { of, catchError } from 'rxjs';
import { Api } from '../api/api';
import { SmallPicture } from '../shared/small-picture';

/** The picture that stands for a study: its cover plate, or the map of its newest network. */
@Component({
  selector: 'pt-study-picture',
  imports: [SmallPicture],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (picture(); as found) {
      <pt-small-picture [picture]="found" />
    } @else {
      <span class="faint">no map yet</span>
    }
  `,
  styles: `
    :host {
      display: grid;
      align-items: center;
      align-self: stretch;
      border-right: 1px solid var(--line);
      background: var(--paper);
      border-radius: 8px 0 0 8px;
      width: 151px;
      min-height: 100px;
      justify-items: center;
    }
  `,
})
export class StudyPicture {
  readonly study = input.required<Study>();
  protected readonly picture = signal<Picture | null>(null);
  private readonly api = inject(Api);

  constructor() {
    effect((onCleanup) => {
      const { id: study, latestNetwork } = this.study();
      if (latestNetwork === null) return;
      const reading = this.api
        .cover({ study })
        .pipe(catchError(() => of(null)))
        .subscribe((picture) => this.picture.set(picture));
      onCleanup(() => reading.unsubscribe());
    });
  }
}
