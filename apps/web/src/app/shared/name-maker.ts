import { ChangeDetectionStrategy, Component, ElementRef, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { TidyKind, type StepParameters } from '@pebble/contract';
import { Api } from '../api/api';
import { Notices } from '../store/notices';
import { Busy } from './busy';

/** Selections of fewer or more letters are no names. */
const [SHORTEST, LONGEST] = [2, 100];

/** Offers to make a name of what is selected in the texts beside it, and to find it in all messages. */
@Component({
  selector: 'pt-name-maker',
  imports: [MatInput, MatFormField, MatButton, Busy, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:selectionchange)': 'look()' },
  template: `
    @if (name(); as one) {
      <div class="offer" role="group" aria-label="Make a name">
        Make <b>{{ one }}</b> a name:
        <mat-form-field><select matNativeControl aria-label="Its kind" [ngModel]="kind()" (ngModelChange)="kind.set($event)">
          @for (k of kinds; track k) {
            <option [value]="k">{{ k }}</option>
          }
        </select></mat-form-field>
        <button matButton="outlined" [ptBusy]="busy()" (click)="make(one)">
          {{ busy() ? 'Looking …' : 'Find it in all messages' }}
        </button>
        <button matButton aria-label="No name" (click)="name.set(null)">✕</button>
      </div>
    }
  `,
  styles: `
    :host {
      position: sticky;
      top: 0;
      z-index: 1;
    }
    .offer {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 6px;
      margin: 6px 0;
      padding: 6px 10px;
      border: 1px solid var(--thread);
      border-radius: 8px;
      background: var(--thread-wash);
      font-size: 13px;
    }
    b {
      overflow-wrap: anywhere;
    }
  `,
})
export class NameMaker {
  readonly study = input.required<string>();
  private readonly api = inject(Api);
  private readonly notices = inject(Notices);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  protected readonly kinds = TidyKind.options;
  protected readonly kind = signal<TidyKind>('unknown');
  protected readonly name = signal<string | null>(null);
  protected readonly busy = signal(false);

  /** What is selected in a text of the same part of the screen; it stays when the selection is lost to a click on the offer. */
  protected look(): void {
    const selection = document.getSelection();
    const text = selection?.toString().replace(/\s+/g, ' ').trim() ?? '';
    if (!selection?.anchorNode || text.length < SHORTEST || text.length > LONGEST) return;
    const isInText = (node: Node | null): boolean =>
      node?.parentElement?.closest('pt-message-text') != null &&
      this.host.nativeElement.parentElement!.contains(node);
    if (isInText(selection.anchorNode) && isInText(selection.focusNode)) this.name.set(text);
  }

  protected make(name: string): void {
    this.busy.set(true);
    const asked: StepParameters<'find-names'> = {
      by: 'list',
      names: [name],
      match: 'words',
      kind: this.kind(),
    };
    this.api.step(this.study(), 'find-names', asked).subscribe({
      next: ({ state, sentence, error }) => {
        this.busy.set(false);
        this.name.set(null);
        this.notices.say(state === 'done' ? sentence : (error ?? 'The search was stopped.'));
      },
      error: (error: Error) => {
        this.busy.set(false);
        this.notices.say(error.message);
      },
    });
  }
}
