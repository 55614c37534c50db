import type { FilterModel, IDatasource, IGetRowsParams, SortModelItem } from 'ag-grid-community';
import { orderOf, type Table, type Value } from './table-order';

/** A row as the table shows it. */
export interface Row {
  readonly id: string;
  /** Its place in the table by columns. */
  readonly row: number;
  readonly [column: string]: Value;
}

/** What a grid shows at a moment. */
export interface Shown {
  readonly table: Table;
  /** Before the number of a row in its id. */
  readonly prefix: string;
  /** Words that a row must contain. */
  readonly words: string;
}

/**
 * Gives a table of any length to the grid in the pieces that are seen: a network may have 300,000 nodes and more ties. It stays the same one
 * while the table becomes another, so that the grid stays where it is scrolled to.
 */
export class TableSource implements IDatasource {
  private of: Table | null = null;
  private asked = '';
  private order: Uint32Array = new Uint32Array();

  constructor(private readonly shown: () => Shown | null) {}

  getRows({ startRow, endRow, sortModel, filterModel, successCallback }: IGetRowsParams): void {
    const shown = this.shown();
    if (!shown) return successCallback([], 0);
    const { table, prefix } = shown;
    this.arrange(shown, sortModel, filterModel as FilterModel);
    const columns = table.names.map((name) => [name, table.column(name)] as const);
    const rows = Array.from(this.order.subarray(startRow, endRow), (row): Row => {
      const values = columns.map(([name, value]) => [name, value(row)] as const);
      return { ...Object.fromEntries(values), id: `${prefix}${row}`, row };
    });
    successCallback(rows, this.order.length);
  }

  /** Where a row of the table stands in what is shown; -1 where it is not. */
  placeOf(row: number): number {
    return this.order.indexOf(row);
  }

  private arrange({ table, words }: Shown, sort: readonly SortModelItem[], filter: FilterModel): void {
    const asked = JSON.stringify([sort, filter, words]);
    if (asked === this.asked && table === this.of) return;
    [this.of, this.asked] = [table, asked];
    this.order = orderOf(table, { sort, filter, words });
  }
}
