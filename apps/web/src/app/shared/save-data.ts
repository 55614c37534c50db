import { ChangeDetectionStrategy, Component, inject, Injector, input } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatTooltip } from '@angular/material/tooltip';
import { addressOf, DataExport, EXPORT_ROUTES, type DataFormat, type DataKind } from '@pebble/contract';
import { Store } from '@ngrx/store';
import { Api } from '../api/api';
import { WorkActions } from '../store/work.actions';
import { saveFrom } from './save-file';

/** Saves what a list shows, with its filters, as a file. */
@Component({
  selector: 'pt-save-data',
  imports: [MatTooltip, MatButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <span class="soft">Save {{ words[what()] }} as</span>
    <button matButton [attr.aria-label]="'Save ' + what() + ' as CSV'" (click)="save('csv')">CSV</button>
    <button matButton
      [attr.aria-label]="'Save ' + what() + ' as JSON Lines'"
      matTooltip="One JSON object a line, with texts exactly as they are; Gather reads messages from it again"
      (click)="save('jsonl')"
    >
      JSON Lines
    </button>
  `,
  styles: `
    :host {
      white-space: nowrap;
    }
  `,
})
export class SaveData {
  readonly study = input.required<string>();
  readonly what = input.required<DataKind>();
  readonly filter = input<object>({});
  protected readonly words: Readonly<Record<DataKind, string>> = {
    messages: 'these messages',
    accounts: 'these accounts',
    items: 'these items',
    decisions: 'the decisions',
    codebook: 'the codes',
    codings: 'what was coded',
    pseudonyms: 'the key',
    logbook: 'the logbook',
  };
  private readonly api = inject(Api);
  private readonly injector = inject(Injector);

  protected save(format: DataFormat): void {
    const asked = DataExport.parse({ what: this.what(), format, filter: this.filter() });
    this.api.step(this.study(), 'export-data', asked).subscribe({
      next: () => {
        saveFrom(exportAddress(this.study(), asked));
      },
      error: (error: Error) =>
        this.injector.get(Store).dispatch(WorkActions.failed({ message: error.message })),
    });
  }
}

function exportAddress(study: string, { what, format, filter }: DataExport): string {
  return addressOf(EXPORT_ROUTES[what], { study, dataFormat: format }, filter);
}
