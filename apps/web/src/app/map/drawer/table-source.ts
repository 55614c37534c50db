import type { FilterModel, IDatasource, IGetRowsParams, SortModelItem } from 'ag-grid-community';
import { orderOf, type Table, type Value } from './table-order';

/** A row as the table shows it. */
export interface Row {
  readonly id: string;
  /** Its place in the table by columns. */
  readonly row: number;
  readonly [column: string]: Value;
}

/** Gives a table of any length to the grid in the pieces that are seen: a network may have 300,000 nodes and more ties. */
export class TableSource implements IDatasource {
  private asked = '';
  private order: Uint32Array = new Uint32Array();

  /**
   * @param prefix before the number of a row in its id
   * @param words that a row must contain to be shown
   */
  constructor(
    private readonly table: Table,
    private readonly prefix: string,
    private readonly words: string,
  ) {}

  getRows({ startRow, endRow, sortModel, filterModel, successCallback }: IGetRowsParams): void {
    this.arrange(sortModel, filterModel as FilterModel);
    const columns = this.table.names.map((name) => [name, this.table.column(name)] as const);
    const rows = Array.from(this.order.subarray(startRow, endRow), (row): Row => {
      const values = columns.map(([name, value]) => [name, value(row)] as const);
      return { ...Object.fromEntries(values), id: `${this.prefix}${row}`, row };
    });
    successCallback(rows, this.order.length);
  }

  /** Where a row of the table stands in what is shown; -1 where it is not. */
  placeOf(row: number): number {
    return this.order.indexOf(row);
  }

  private arrange(sort: readonly SortModelItem[], filter: FilterModel): void {
    const asked = JSON.stringify([sort, filter]);
    if (asked === this.asked) return;
    this.asked = asked;
    this.order = orderOf(this.table, { sort, filter, words: this.words });
  }
}
