import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatProgressBar } from '@angular/material/progress-bar';

/** That a file is being made, with a way to stop it, or why it did not come. */
@Component({
  selector: 'pt-saving-note',
  imports: [MatButton, MatProgressBar],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (busy()) {
      <div role="status">
        <span>It is being made …</span>
        <mat-progress-bar mode="indeterminate" [attr.aria-label]="'Making ' + what()" />
        <button matButton (click)="stopped.emit()">Stop</button>
      </div>
    }
    @if (problem(); as problem) {
      <p class="error" role="alert">{{ problem }}</p>
    }
  `,
  styles: `
    div {
      display: flex;
      gap: 12px;
      align-items: center;
      margin-top: 10px;
    }
    mat-progress-bar {
      flex: 1;
    }
    .error {
      color: var(--danger);
    }
  `,
})
export class SavingNote {
  readonly what = input.required<string>();
  readonly busy = input.required<boolean>();
  readonly problem = input.required<string | null>();
  readonly stopped = output();
}
