import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { Router } from '@angular/router';
import { switchMap } from 'rxjs';
import { Api } from '../api/api';
import { Busy } from '../shared/busy';
import { stepRun } from '../shared/step-run';
import { Notices } from '../store/notices';

/** Opens a package: its network comes to those of the study, and its map is shown. */
@Component({
  selector: 'pt-package-opening',
  imports: [Busy, MatButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button matButton="outlined" type="button" [ptBusy]="run.busy()" (click)="file.click()">
      Open a package …
    </button>
    <input #file type="file" accept=".zip" hidden aria-label="Package" (change)="open(file)" />
    <span class="faint">A network with its map that somebody saved as a package.</span>
    @if (run.problem(); as problem) {
      <p class="error" role="alert">{{ problem }}</p>
    }
  `,
  styles: `
    :host {
      display: block;
      margin-top: 18px;
    }
    span {
      margin-left: 10px;
    }
  `,
})
export class PackageOpening {
  readonly study = input.required<string>();
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly notices = inject(Notices);
  protected readonly run = stepRun();

  protected open(input: HTMLInputElement): void {
    const [file] = input.files ?? [];
    // The same file can be chosen again.
    input.value = '';
    if (!file) return;
    const study = this.study();
    this.run.follow(
      this.api
        .sendBytes({ study }, { bytes: file })
        .pipe(
          switchMap(({ id: upload }) => this.api.step(study, 'open-package', { upload, file: file.name })),
        ),
      ({ sentence, result }) => {
        this.notices.say(sentence);
        void this.router.navigate(['/studies', study, 'map', String(result?.['network'])]);
      },
    );
  }
}
