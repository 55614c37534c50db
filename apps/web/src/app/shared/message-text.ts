import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Message, TextSpan } from '@pebble/contract';

interface Piece {
  readonly text: string;
  readonly span: TextSpan | null;
  readonly matched: boolean;
}

/** The text of a message, only ever as text; mentions and hashtags can be clicked, links stand as text. */
@Component({
  selector: 'pt-message-text',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `@for (piece of pieces(); track $index) {
    @if (piece.span === null) {{{ piece.text }}} @else if (piece.span.what === 'score') {<mark [title]="piece.span.key">{{ piece.text }}</mark>} @else if (piece.span.what === 'link') {<span class="link" [title]="piece.span.key">{{ piece.text }}</span>} @else {<button [class.matched]="piece.matched" (click)="spanClicked.emit(piece.span); $event.stopPropagation()">{{ piece.text }}</button>}
  }`,
  styles: `
    :host { white-space: pre-wrap; overflow-wrap: anywhere; unicode-bidi: plaintext; }
    button { border: 0; background: none; padding: 0; color: var(--tide); cursor: pointer; display: inline; }
    button:hover { text-decoration: underline; }
    .matched { background: var(--thread-wash); color: var(--thread); font-weight: 600; border-radius: 2px; }
    .link { color: var(--tide); }
    mark { background: none; color: inherit; border-bottom: 2px solid var(--thread); cursor: help; }
  `,
})
export class MessageText {
  readonly message = input.required<Message>();
  /** Handles that are marked in the text, in lower case. */
  readonly marked = input<readonly string[]>([]);
  readonly spanClicked = output<TextSpan>();
  protected readonly pieces = computed<readonly Piece[]>(() => {
    const { text, spans } = this.message();
    const pieces: Piece[] = [];
    let at = 0;
    for (const span of spans) {
      if (span.start > at) pieces.push({ text: text.slice(at, span.start), span: null, matched: false });
      const matched = span.what === 'mention' && this.marked().includes(span.key.toLowerCase());
      pieces.push({ text: text.slice(span.start, span.end), span, matched });
      at = span.end;
    }
    if (at < text.length) pieces.push({ text: text.slice(at), span: null, matched: false });
    return pieces;
  });
}
