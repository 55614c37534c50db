import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import type { Message, TextSpan } from '@pebble/contract';

interface Piece {
  readonly text: string;
  readonly span: TextSpan | null;
  readonly matched: boolean;
}

/** The text of a message, only ever as text; mentions and hashtags can be clicked, links stand as text. */
@Component({
  selector: 'pt-message-text',
  imports: [MatTooltip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `@for (piece of pieces(); track $index) {
    @if (piece.span === null && piece.matched) {<mark class="found">{{ piece.text }}</mark>} @else if (piece.span === null) {{{ piece.text }}} @else if (piece.span.what === 'score') {<mark [matTooltip]="piece.span.key">{{ piece.text }}</mark>} @else if (piece.span.what === 'link') {<span class="link" [matTooltip]="piece.span.key">{{ piece.text }}</span>} @else {<button [tabindex]="reached() ? 0 : -1" [class.matched]="piece.matched" (click)="spanClicked.emit(piece.span); $event.stopPropagation()">{{ piece.text }}</button>}
  }`,
  styles: `
    :host { white-space: pre-wrap; overflow-wrap: anywhere; unicode-bidi: plaintext; }
    button { border: 0; background: none; padding: 0; color: var(--tide); cursor: pointer; display: inline; }
    button:hover { text-decoration: underline; }
    .matched { background: var(--thread-wash); color: var(--thread); font-weight: 600; border-radius: 2px; }
    .link { color: var(--tide); }
    .found { background: var(--thread-wash); color: var(--thread); font-weight: 600; border-radius: 2px; border: 0; cursor: auto; }
    mark:not(.found) { background: none; color: inherit; border-bottom: 2px solid var(--thread); cursor: help; }
  `,
})
export class MessageText {
  readonly message = input.required<Message>();
  /** Handles that are marked in the text, in lower case. */
  readonly marked = input<readonly string[]>([]);
  /** What is looked at: it is marked in the text wherever it stands. */
  readonly found = input('');
  /** Whether Tab comes to what can be pressed in it. */
  readonly reached = input(true);
  readonly spanClicked = output<TextSpan>();
  protected readonly pieces = computed<readonly Piece[]>(() => {
    const { text, spans } = this.message();
    const pieces: Piece[] = [];
    let at = 0;
    for (const span of spans) {
      if (span.start > at) pieces.push(...plain(text.slice(at, span.start), this.found()));
      const isMarked = span.what === 'mention' && this.marked().includes(span.key.toLowerCase());
      const matched = isMarked || isFound(text.slice(span.start, span.end), this.found());
      pieces.push({ text: text.slice(span.start, span.end), span, matched });
      at = span.end;
    }
    if (at < text.length) pieces.push(...plain(text.slice(at), this.found()));
    return pieces;
  });
}

/** A stretch of plain text, parted where what is looked at stands in it, without regard to case. */
function plain(text: string, found: string): Piece[] {
  const pieces: Piece[] = [];
  const add = (part: string, matched: boolean): void => {
    if (part !== '') pieces.push({ text: part, span: null, matched });
  };
  const sought = found.toLowerCase();
  const lower = text.toLowerCase();
  let at = 0;
  // Small letters may be more or fewer than capitals in a few scripts: then nothing is marked.
  if (sought !== '' && lower.length === text.length)
    for (let next = lower.indexOf(sought); next >= 0; next = lower.indexOf(sought, at)) {
      add(text.slice(at, next), false);
      add(text.slice(next, next + sought.length), true);
      at = next + sought.length;
    }
  add(text.slice(at), false);
  return pieces;
}

function isFound(text: string, found: string): boolean {
  const bare = (one: string): string => one.toLowerCase().replace(/^[#@]/, '');
  return found !== '' && bare(text) === bare(found);
}
