import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  output,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { TableFormat, type NodeTable, type Preview, type ImportMapping, type Upload } from '@pebble/contract';
import { of, type Observable } from 'rxjs';
import { Api } from '../api/api';
import { latest } from '../shared/latest';

/** A table in which the nodes may stand: a sheet of the same workbook, or a file that waits too. */
interface Place {
  readonly title: string;
  readonly upload: Upload;
  readonly sheet: string | null;
}

/** Where the nodes of a list of ties stand: in its ends alone, in a sheet beside it, or in a file that came with it. */
@Component({
  selector: 'pt-node-table-choice',
  imports: [MatInput, MatFormField, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (places().length) {
      <label class="field"
        >Nodes from
        <mat-form-field><select matNativeControl [ngModel]="chosen()?.title ?? ''" (ngModelChange)="choose($event)">
          <option value="">the ends of the ties alone</option>
          @for (place of places(); track place.title) {
            <option [value]="place.title">{{ place.title }}</option>
          }
        </select></mat-form-field>
      </label>
      @if (found(); as preview) {
        @if (preview.missing.length) {
          <p class="error">In {{ chosen()?.title }} no column could be taken as the node.</p>
        } @else {
          <p class="soft">{{ meaning() }} {{ preview.outcome }}</p>
        }
      }
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      align-items: end;
      gap: 4px 14px;
    }
    p {
      margin: 0 0 4px;
      max-width: 70ch;
    }
  `,
})
export class NodeTableChoice {
  private readonly api = inject(Api);
  readonly study = input.required<string>();
  /** The list of ties. */
  readonly ties = input.required<Upload>();
  /** Other files that wait to be taken in. */
  readonly others = input<readonly Upload[]>([]);
  readonly nodesChosen = output<NodeTable | null>();
  protected readonly places = computed<readonly Place[]>(() => {
    const ties = this.ties();
    const { sheets, reading } = ties.preview;
    const isTable = ({ preview }: Upload): boolean => TableFormat.safeParse(preview.reading.format).success;
    return [
      ...sheets
        .filter((sheet) => sheet !== reading.sheet)
        .map((sheet) => ({ title: `the sheet ${sheet}`, upload: ties, sheet })),
      ...this.others()
        .filter(isTable)
        .map((upload) => ({ title: upload.preview.file, upload, sheet: upload.preview.reading.sheet })),
    ];
  });
  /** At first the one that seems to hold nodes. */
  protected readonly chosen = linkedSignal<readonly Place[], Place | null>({
    source: this.places,
    computation: (places) =>
      places.find(({ upload, sheet }) =>
        upload.id === this.ties().id
          ? sheet === upload.preview.nodeSheet
          : upload.preview.reading.material === 'nodes',
      ) ?? null,
  });
  private readonly asked = computed(() => ({ study: this.study(), place: this.chosen() }));
  protected readonly found = latest(this.asked, ({ study, place }): Observable<Preview | null> => {
    if (!place) return of(null);
    const { upload, sheet } = place;
    // A file that was already said to hold nodes is read as it was corrected.
    if (upload.id !== this.ties().id && upload.preview.reading.material === 'nodes')
      return of(upload.preview);
    const reading: Partial<ImportMapping> = { material: 'nodes', ...(sheet === null ? {} : { sheet }) };
    return this.api.previewAgain({ study, upload: upload.id }, { file: upload.preview.file, reading });
  });
  protected readonly meaning = computed(() => {
    const nameOf = (role: string): string | undefined =>
      this.found()?.reading.columns.find((column) => column.role === role)?.name;
    const label = nameOf('authorName');
    return `Ties call a node by its “${nameOf('node') ?? ''}”${label ? `; “${label}” is its label` : ''}.`;
  });

  constructor() {
    effect(() => {
      const place = this.chosen();
      const preview = this.found();
      this.nodesChosen.emit(
        place && preview && preview.missing.length === 0
          ? { upload: place.upload.id, file: preview.file, reading: preview.reading }
          : null,
      );
    });
  }

  protected choose(title: string): void {
    this.chosen.set(this.places().find((place) => place.title === title) ?? null);
  }
}
