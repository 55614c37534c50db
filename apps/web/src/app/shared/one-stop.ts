import { CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import {
  afterNextRender,
  computed,
  Directive,
  ElementRef,
  inject,
  Injector,
  input,
  signal,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { of } from 'rxjs';

/** By how many rows a key goes on. */
const STEPS: Readonly<Record<string, number>> = {
  ArrowDown: 1,
  ArrowUp: -1,
  PageDown: 10,
  PageUp: -10,
  Home: -Infinity,
  End: Infinity,
};

/**
 * A list of rows that is one stop of the Tab key: arrows, Page, Home and End go from row to row, and Tab through what can be pressed in the
 * row that is reached. Rows say which they are by `data-row`, and whether they are reached by `reaches` (WAI-ARIA Authoring Practices, roving
 * tabindex).
 */
@Directive({
  selector: '[ptOneStop]',
  exportAs: 'ptOneStop',
  host: { '(keydown)': 'press($event)', '(focusin)': 'enter($event)' },
})
export class OneStop {
  /** The number of rows. */
  readonly ptOneStop = input.required<number>();
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly injector = inject(Injector);
  private readonly viewport = inject(CdkVirtualScrollViewport, { optional: true, self: true });
  private readonly made = toSignal(this.viewport?.renderedRangeStream ?? of(null), { initialValue: null });
  private readonly at = signal(0);
  /** The row that is reached, or the next to it of those that are made. */
  private readonly reached = computed(() => {
    const made = this.made();
    const at = Math.min(this.at(), this.ptOneStop() - 1);
    return made ? Math.min(Math.max(at, made.start), made.end - 1) : at;
  });

  /** Whether Tab comes to this row and to what can be pressed in it. */
  reaches(row: number): boolean {
    return row === this.reached();
  }

  protected enter({ target }: FocusEvent): void {
    const row = (target as HTMLElement).closest<HTMLElement>('[data-row]');
    if (row) this.at.set(Number(row.dataset['row']));
  }

  protected press(event: KeyboardEvent): void {
    const step = STEPS[event.key];
    const isInField = (event.target as HTMLElement).matches('input, select, textarea');
    if (step === undefined || isInField || event.ctrlKey || event.altKey || event.metaKey) return;
    event.preventDefault();
    const isOnRow = (event.target as HTMLElement).closest('[data-row]') !== null;
    this.goTo(isOnRow || !Number.isFinite(step) ? this.reached() + step : this.reached());
  }

  private goTo(wanted: number): void {
    const row = Math.max(0, Math.min(wanted, this.ptOneStop() - 1));
    this.at.set(row);
    if (this.find(row)) return this.focus(row);
    this.viewport?.scrollToIndex(row);
    afterNextRender(() => this.focus(row), { injector: this.injector });
  }

  private find(row: number): HTMLElement | null {
    return this.host.querySelector<HTMLElement>(`[data-row="${row}"]`);
  }

  private focus(row: number, tries = 20): void {
    const element = this.find(row);
    if (element) element.focus();
    // Rows of a list that is scrolled are made with its next picture.
    else if (tries > 0) requestAnimationFrame(() => this.focus(row, tries - 1));
  }
}
