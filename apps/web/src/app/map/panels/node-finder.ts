import {
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  inject,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { formatValue, numbersOf, textsOf } from '@pebble/core';
import { MapSession } from '../session/map-session';
import { rankingColumn } from '../session/tie-columns';

const MOST = 8;

/** Finds a node by a part of its handle or name. */
@Component({
  selector: 'pt-node-finder',
  imports: [MatInput, MatFormField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <mat-form-field><input matInput
      #box
      type="search"
      [placeholder]="what()"
      [attr.aria-label]="what()"
      role="combobox"
      [attr.aria-expanded]="hits().length > 0"
      aria-controls="finder-hits"
      [value]="typed()"
      (input)="typed.set($any($event.target).value); at.set(0)"
      (keydown)="key($event)" /></mat-form-field>
    <kbd>/</kbd>
    @if (typed().trim()) {
      <ul id="finder-hits" role="listbox">
        @for (hit of hits(); track hit.node; let i = $index) {
          <li
            role="option"
            [attr.aria-selected]="i === at()"
            [class.on]="i === at()"
            (pointerdown)="choose(hit.node); $event.preventDefault()"
          >
            <b>{{ hit.handle }}</b>
            <span>{{ hit.name }}</span>
            <i>{{ hit.note }}</i>
          </li>
        } @empty {
          <li class="none">Nothing in this network has “{{ typed() }}” in its name.</li>
        }
      </ul>
    }
  `,
  styles: `
    :host {
      position: relative;
      display: block;
    }
    mat-form-field {
      width: 210px;
    }
    kbd {
      position: absolute;
      right: 8px;
      top: 7px;
      pointer-events: none;
    }
    ul {
      position: absolute;
      right: 0;
      top: 34px;
      width: 330px;
      background: var(--sheet);
      border: 1px solid var(--line);
      border-radius: 8px;
      box-shadow: 0 8px 28px #1e2a3233;
      padding: 4px;
      margin: 0;
      list-style: none;
      z-index: 6;
    }
    li {
      padding: 5px 10px;
      border-radius: 5px;
      cursor: pointer;
      display: flex;
      gap: 8px;
    }
    li span {
      color: var(--soft);
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    li i {
      font-style: normal;
      color: var(--faint);
      margin-left: auto;
      white-space: nowrap;
    }
    .on {
      background: var(--thread-wash);
    }
    .none {
      color: var(--soft);
      cursor: default;
    }
  `,
})
export class NodeFinder {
  readonly found = output<number>();
  private readonly session = inject(MapSession);
  /** The nodes need not be accounts. */
  protected readonly what = computed(() => {
    const { one } = this.session.words();
    return `Find ${/^[aeiou]/.test(one) ? 'an' : 'a'} ${one}`;
  });
  private readonly box = viewChild.required<ElementRef<HTMLInputElement>>('box');
  protected readonly typed = signal('');
  protected readonly at = signal(0);
  protected readonly hits = computed(() => {
    const data = this.session.data();
    const map = this.session.prepared();
    const wanted = this.typed().trim().replace(/^@/, '').toLowerCase();
    if (!data || !map || !wanted) return [];
    const handles = textsOf(data.nodes, 'handle');
    const names = textsOf(data.nodes, 'name');
    const { column, words } = rankingColumn(data);
    const degree = numbersOf(data.nodes, column);
    const rank = (v: number): number => (handles[v].toLowerCase().startsWith(wanted) ? 1e9 : 0) + degree[v];
    return [...map.nodes]
      .filter((v) => handles[v].toLowerCase().includes(wanted) || names[v].toLowerCase().includes(wanted))
      .sort((a, b) => rank(b) - rank(a))
      .slice(0, MOST)
      .map((node) => ({
        node,
        handle: handles[node],
        name: names[node],
        note: `${words} ${formatValue(degree[node])}`,
      }));
  });

  focus(): void {
    this.box().nativeElement.focus();
  }

  protected key(event: KeyboardEvent): void {
    const { length } = this.hits();
    if (event.key === 'ArrowDown') this.at.update((i) => Math.min(i + 1, length - 1));
    else if (event.key === 'ArrowUp') this.at.update((i) => Math.max(i - 1, 0));
    else if (event.key === 'Escape') this.typed.set('');
    else if (event.key === 'Enter' && length > 0) this.choose(this.hits()[this.at()].node);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  protected choose(node: number): void {
    this.typed.set('');
    this.found.emit(node);
  }
}
