import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import {
  MAT_DIALOG_DATA,
  MatDialogActions,
  MatDialogContent,
  MatDialogRef,
  MatDialogTitle,
} from '@angular/material/dialog';
import { MatFormField, MatLabel } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import type { Leaks } from '@pebble/contract';
import { counted } from '@pebble/core';

/** Lists where people can be found in what is to go out; it goes out for a reason alone. Closes with the reason. */
@Component({
  selector: 'pt-leaks-dialog',
  imports: [
    FormsModule,
    MatButton,
    MatDialogActions,
    MatDialogContent,
    MatDialogTitle,
    MatFormField,
    MatInput,
    MatLabel,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 matDialogTitle>People can be found in it</h2>
    <mat-dialog-content>
      <p>Nothing was saved. {{ total() }} somebody who has a pseudonym:</p>
      <table>
        <thead>
          <tr>
            <th scope="col">Where</th>
            <th scope="col">What</th>
            <th scope="col">Among which words</th>
          </tr>
        </thead>
        <tbody>
          @for (leak of leaks.leaks; track $index) {
            <tr>
              <td>{{ leak.place }}</td>
              <td>{{ leak.kind }} “{{ leak.text }}”</td>
              <td class="soft">{{ leak.context }}</td>
            </tr>
          }
        </tbody>
      </table>
      @if (leaks.total > leaks.leaks.length) {
        <p class="soft">And {{ leaks.total - leaks.leaks.length }} more.</p>
      }
      <p class="soft">
        A word can be one of the language too. Change the caption, a title or a name, let the account keep its
        name, or say why it may go out: the reason stands in the logbook.
      </p>
      <mat-form-field>
        <mat-label>Why it may go out</mat-label>
        <input matInput maxlength="500" [ngModel]="reason()" (ngModelChange)="reason.set($event)" />
      </mat-form-field>
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button matButton cdkFocusInitial (click)="dialog.close()">Do not save</button>
      <button matButton="outlined" [disabled]="reason().trim() === ''" (click)="dialog.close(reason().trim())">
        Save all the same
      </button>
    </mat-dialog-actions>
  `,
  styles: `
    table {
      width: 100%;
      border-collapse: collapse;
      font-size: 13px;
    }
    th,
    td {
      text-align: left;
      vertical-align: top;
      padding: 5px 10px 5px 0;
      border-bottom: 1px solid var(--line);
      overflow-wrap: anywhere;
    }
    mat-form-field {
      width: 100%;
    }
  `,
})
export class LeaksDialog {
  protected readonly leaks = inject<Leaks>(MAT_DIALOG_DATA);
  protected readonly dialog = inject<MatDialogRef<LeaksDialog, string>>(MatDialogRef);
  protected readonly reason = signal('');
  protected readonly total = computed(() => counted(this.leaks.total, 'place names', 'places name'));
}
