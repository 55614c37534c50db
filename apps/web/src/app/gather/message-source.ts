import { DataSource, type CollectionViewer } from '@angular/cdk/collections';
import type { Message, MessageFilter } from '@pebble/contract';
import {
  BehaviorSubject,
  mergeMap,
  Observable,
  of,
  Subject,
  switchMap,
  takeUntil,
  tap,
  catchError,
} from 'rxjs';
import type { Api } from '../api/api';

const PAGE = 50;

/** Messages by a filter, loaded page by page as they come into view; null stands for one that is on its way. */
export class MessageSource extends DataSource<Message | null> {
  readonly total = new BehaviorSubject<number | null>(null);
  readonly rows = new BehaviorSubject<readonly (Message | null)[]>([]);
  private readonly asked = new Set<number>();
  private readonly closed = new Subject<void>();

  constructor(
    private readonly api: Api,
    private readonly study: string,
    private readonly filter: MessageFilter,
    private readonly onError: (message: string) => void,
  ) {
    super();
  }

  connect(viewer: CollectionViewer): Observable<readonly (Message | null)[]> {
    this.load(0).pipe(takeUntil(this.closed)).subscribe();
    viewer.viewChange
      .pipe(
        takeUntil(this.closed),
        mergeMap(({ start, end }) => {
          const pages: number[] = [];
          for (
            let page = Math.floor(start / PAGE);
            page <= Math.floor(Math.max(start, end - 1) / PAGE);
            page++
          )
            pages.push(page);
          return of(...pages);
        }),
        mergeMap((page) => this.load(page), 3),
      )
      .subscribe();
    return this.rows;
  }

  disconnect(): void {
    this.closed.next();
  }

  /** Shows a message as it is after a change. */
  replace(message: Message): void {
    this.rows.next(this.rows.value.map((row) => (row?.id === message.id ? message : row)));
  }

  private load(page: number): Observable<unknown> {
    const known = this.total.value;
    if (this.asked.has(page) || (known !== null && page * PAGE >= known && page > 0)) return of(null);
    this.asked.add(page);
    return of(page).pipe(
      switchMap(() =>
        this.api.messages({ study: this.study }, { ...this.filter, offset: page * PAGE, limit: PAGE }),
      ),
      tap(({ total, messages }) => {
        const rows =
          this.rows.value.length === total
            ? [...this.rows.value]
            : new Array<Message | null>(total).fill(null);
        messages.forEach((message, i) => (rows[page * PAGE + i] = message));
        this.rows.next(rows);
        this.total.next(total);
      }),
      catchError((error: Error) => {
        this.asked.delete(page);
        this.onError(error.message);
        return of(null);
      }),
    );
  }
}
