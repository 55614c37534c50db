import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  inject,
  ElementRef,
  Injector,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { MatButton } from '@angular/material/button';

/** A button for something that cannot be taken back: it says first what will be gone, and is done by a second press. */
@Component({
  selector: 'pt-for-good',
  imports: [MatButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (isAsking()) {
      <span class="asks" role="alertdialog" [attr.aria-label]="question()" (keydown.escape)="keep()">
        <span>{{ question() }}</span>
        <button matButton="outlined" #keeping (click)="keep()">Keep</button>
        <button matButton="outlined" class="danger" (click)="isAsking.set(false); confirmed.emit()">{{ act() }}</button>
      </span>
    } @else {
      <button matButton class="danger" [attr.aria-label]="label() || act()" (click)="ask()">{{ act() }}</button>
    }
  `,
  styles: `
    .asks {
      display: inline-flex;
      flex-wrap: wrap;
      gap: 6px 10px;
      align-items: center;
      padding: 4px 10px;
      border-left: 3px solid var(--danger);
      background: var(--paper2);
      color: var(--ink);
      white-space: normal;
    }
    .asks > span {
      max-width: 560px;
    }
  `,
})
export class ForGood {
  /** What the button does, "Remove for good". */
  readonly act = input.required<string>();
  /** What will be gone, as a question. */
  readonly question = input.required<string>();
  /** What the button is called for those who cannot see where it stands. */
  readonly label = input('');
  readonly confirmed = output();
  protected readonly isAsking = signal(false);
  private readonly keeping = viewChild<unknown, ElementRef<HTMLElement>>('keeping', { read: ElementRef });
  private readonly injector = inject(Injector);

  protected ask(): void {
    this.isAsking.set(true);
    // The harmless answer is the one that Enter gives.
    afterNextRender(() => this.keeping()?.nativeElement.focus(), { injector: this.injector });
  }

  protected keep(): void {
    this.isAsking.set(false);
  }
}
