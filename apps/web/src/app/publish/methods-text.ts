import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import {
  MatExpansionPanel,
  MatExpansionPanelHeader,
  MatExpansionPanelTitle,
} from '@angular/material/expansion';
import { Store } from '@ngrx/store';
import type { Network } from '@pebble/contract';
import { bibtex, counted, referenceLines } from '@pebble/core';
import { Api, pathOf } from '../api/api';
import { asking } from '../shared/asking';
import { saveFile } from '../shared/save-file';
import { Notices } from '../store/notices';
import { work } from '../store/work.reducer';
import { doneSteps } from '../shared/done-steps';

/** How the open network came about, for the methods section of a text, and the works that it cites. */
@Component({
  selector: 'pt-methods-text',
  imports: [
    FormsModule,
    MatButton,
    MatCheckbox,
    MatExpansionPanel,
    MatExpansionPanelHeader,
    MatExpansionPanelTitle,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (methods.found(); as found) {
      <mat-expansion-panel class="told mat-elevation-z0">
        <mat-expansion-panel-header>
          <mat-panel-title>{{ title() }}</mat-panel-title>
        </mat-expansion-panel-header>
        @for (one of paragraphs(); track one) {
          <p>{{ one }}</p>
        }
        <ul>
          @for (one of list(); track one) {
            <li>{{ one }}</li>
          }
        </ul>
      </mat-expansion-panel>
      <mat-checkbox [ngModel]="isShort()" (ngModelChange)="isShort.set($event)">in short</mat-checkbox><br />
      <button matButton="outlined" (click)="copy()">Copy</button>
      @if (found.references.length > 0) {
        <button matButton="outlined" (click)="saveReferences('bib')">BibTeX</button>
        <button matButton="outlined" (click)="saveReferences('json')">CSL-JSON</button>
      }
    } @else if (methods.error(); as error) {
      <p class="soft" role="alert">{{ error }}</p>
    } @else {
      <p class="soft" role="status">Reading the logbook …</p>
    }
  `,
  styles: `
    mat-expansion-panel-header {
      padding: 0 6px 0 2px;
    }
    p {
      font-family: var(--serif);
      line-height: 1.45;
    }
    ul {
      margin: 10px 0 0;
      padding: 0;
      list-style: none;
      font-size: 13px;
    }
    li {
      margin: 6px 0 6px 14px;
      text-indent: -14px;
      overflow-wrap: anywhere;
    }
    button {
      margin: 8px 6px 0 0;
    }
  `,
})
export class MethodsText {
  readonly network = input.required<Network>();
  private readonly api = inject(Api);
  private readonly notices = inject(Notices);
  private readonly steps = inject(Store).selectSignal(work.selectSteps);
  protected readonly isShort = signal(false);
  protected readonly methods = asking(
    () => ({
      place: pathOf(this.network()),
      length: this.isShort() ? ('short' as const) : ('long' as const),
      done: doneSteps(this.steps()),
    }),
    ({ place, length }) => this.api.methods(place, { length }),
  );
  protected readonly paragraphs = computed(() =>
    (this.methods.found()?.paragraphs ?? []).map((sentences) => sentences.join(' ')),
  );
  protected readonly list = computed(() => referenceLines(this.methods.found()?.references ?? []));
  protected readonly title = computed(() => {
    const { paragraphs = [], references = [] } = this.methods.found() ?? {};
    return `${counted(paragraphs.flat().length, 'sentence')}, ${counted(references.length, 'reference')}`;
  });

  protected async copy(): Promise<void> {
    await navigator.clipboard.writeText([...this.paragraphs(), ...this.list()].join('\n\n'));
    this.notices.say('The text and its references were copied.');
  }

  protected saveReferences(format: 'bib' | 'json'): void {
    const references = this.methods.found()?.references ?? [];
    const name = `${this.network().name}, references.${format}`;
    const [text, type] =
      format === 'bib'
        ? [bibtex(references), 'application/x-bibtex']
        : [`${JSON.stringify(references, null, 2)}\n`, 'application/vnd.citationstyles.csl+json'];
    saveFile(new Blob([text], { type: `${type};charset=utf-8` }), name);
  }
}
