import { ChangeDetectionStrategy, Component, computed, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { asRows, asText } from './pasted-cells';

const ROWS_SHOWN = 200;

/** Cells copied from a spreadsheet: pasted, seen as a table at once, corrected cell by cell, and then looked at like a file. */
@Component({
  selector: 'pt-paste-box',
  imports: [MatInput, MatFormField, MatButton, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <h2>Paste cells</h2>
      <div>
        <button matButton="outlined" (click)="closed.emit()">Close</button>
        <button matButton="filled" [disabled]="rows().length < 2" (click)="pasted.emit(text())">Look at it</button>
      </div>
    </header>
    @if (rows().length === 0) {
      <mat-form-field><textarea matInput
        rows="6"
        aria-label="Paste here"
        placeholder="Copy cells in a spreadsheet, with their headings, and paste them here"
        [ngModel]="''"
        (ngModelChange)="take($event)"
      ></textarea></mat-form-field>
    } @else {
      <p class="soft">
        {{ rows().length - 1 }} rows under a row of headings. Click a cell to correct it.
        @if (rows().length > shown) {
          The first {{ shown }} are shown.
        }
        <button matButton (click)="rows.set([])">Paste anew</button>
      </p>
      <div class="scroll">
        <table>
          @for (row of rows().slice(0, shown); track $index; let r = $index) {
            <tr>
              @for (cell of row; track $index; let c = $index) {
                <td>
                  <mat-form-field><input matInput
                    [class.heading]="r === 0"
                    [attr.aria-label]="'Row ' + (r + 1) + ', column ' + (c + 1)"
                    [value]="cell"
                    (change)="correct(r, c, $any($event.target).value)" /></mat-form-field>
                </td>
              }
            </tr>
          }
        </table>
      </div>
    }
  `,
  styles: `
    :host {
      display: block;
      background: var(--sheet);
      border: 1px solid var(--line);
      border-radius: 10px;
      padding: 14px 20px;
    }
    header {
      display: flex;
      justify-content: space-between;
      gap: 12px;
      margin-bottom: 10px;
    }
    header div {
      display: flex;
      gap: 8px;
    }
    mat-form-field {
      width: 100%;
    }
    .scroll {
      overflow: auto;
      max-height: 380px;
      border: 1px solid var(--line);
      border-radius: 6px;
      margin-top: 8px;
    }
    table {
      border-collapse: collapse;
    }
    td {
      border: 1px solid var(--line);
      padding: 0;
    }
    td mat-form-field {
      width: 150px;
    }
    .heading {
      font-weight: 700;
    }
  `,
})
export class PasteBox {
  readonly pasted = output<string>();
  readonly closed = output<void>();
  protected readonly shown = ROWS_SHOWN;
  protected readonly rows = signal<readonly (readonly string[])[]>([]);
  protected readonly text = computed(() => asText(this.rows()));

  protected take(text: string): void {
    this.rows.set(asRows(text));
  }

  protected correct(row: number, column: number, value: string): void {
    this.rows.update((rows) =>
      rows.map((cells, r) => (r === row ? cells.map((cell, c) => (c === column ? value : cell)) : cells)),
    );
  }
}
