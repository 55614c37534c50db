import {
  VIRTUAL_SCROLL_STRATEGY,
  type CdkVirtualScrollViewport,
  type VirtualScrollStrategy,
} from '@angular/cdk/scrolling';
import { Directive, effect, forwardRef, inject, input } from '@angular/core';
import { Subject } from 'rxjs';

/** Pixels above and below what is seen in which rows are made. */
const ROOM = 400;

/** Where rows of different heights stand that are not all made: those in view, and some above and below. */
class HeightsStrategy implements VirtualScrollStrategy {
  private readonly index = new Subject<number>();
  readonly scrolledIndexChange = this.index.asObservable();
  private viewport: CdkVirtualScrollViewport | null = null;
  /** Where each row begins, and behind them where the last one ends. */
  private tops = Float64Array.of(0);

  attach(viewport: CdkVirtualScrollViewport): void {
    this.viewport = viewport;
    this.lay();
  }

  detach(): void {
    this.index.complete();
    this.viewport = null;
  }

  setTops(tops: Float64Array<ArrayBuffer>): void {
    this.tops = tops;
    this.lay();
  }

  onContentScrolled(): void {
    this.render();
  }

  onDataLengthChanged(): void {
    this.lay();
  }

  onContentRendered(): void {
    // Heights are known before.
  }

  onRenderedOffsetChanged(): void {
    // It is set here alone.
  }

  scrollToIndex(index: number, behavior: ScrollBehavior): void {
    this.viewport?.scrollToOffset(this.tops[Math.min(index, this.tops.length - 1)], behavior);
  }

  private lay(): void {
    this.viewport?.setTotalContentSize(this.tops[this.tops.length - 1]);
    this.render();
  }

  private render(): void {
    const { viewport, tops } = this;
    if (!viewport) return;
    const last = Math.min(tops.length - 1, viewport.getDataLength());
    const top = viewport.measureScrollOffset();
    const start = rowAt(tops, top - ROOM, last);
    const end = Math.min(last, rowAt(tops, top + viewport.getViewportSize() + ROOM, last) + 1);
    viewport.setRenderedRange({ start, end });
    viewport.setRenderedContentOffset(tops[start]);
    this.index.next(rowAt(tops, top, last));
  }
}

/** The row that stands at a height: the last of `rows` that begins there or above. @param tops ascending, from 0 */
export function rowAt(tops: Float64Array, at: number, rows: number): number {
  let [low, high] = [0, Math.max(0, rows - 1)];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (tops[middle] <= at) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** Where rows begin, one behind the other, and where the last ends. */
export function topsOf(heights: ArrayLike<number>): Float64Array<ArrayBuffer> {
  const tops = new Float64Array(heights.length + 1);
  for (let i = 0; i < heights.length; i++) tops[i + 1] = tops[i] + heights[i];
  return tops;
}

/** A list of which the rows in view are made alone, each as high as is said. */
@Directive({
  selector: 'cdk-virtual-scroll-viewport[ptRowHeights]',
  providers: [
    {
      provide: VIRTUAL_SCROLL_STRATEGY,
      useFactory: (): VirtualScrollStrategy => inject<RowHeights>(forwardRef(() => RowHeights)).strategy,
    },
  ],
})
export class RowHeights {
  /** Pixels, by row. */
  readonly ptRowHeights = input.required<ArrayLike<number>>();
  readonly strategy = new HeightsStrategy();

  constructor() {
    effect(() => this.strategy.setTops(topsOf(this.ptRowHeights())));
  }
}
