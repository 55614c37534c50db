import { parquetWriteBuffer } from 'hyparquet-writer';
import type { TableColumns } from '../network/tables';

/** Columns as an Apache Parquet file, packed with Snappy; a number that is none is a null. */
export function toParquet(columns: TableColumns): Uint8Array {
  const columnData = Object.entries(columns).map(([name, values]) => {
    if (!ArrayBuffer.isView(values)) return { name, data: [...values], type: 'STRING' as const };
    if (values instanceof Uint32Array)
      return { name, data: Array.from(values, BigInt), type: 'INT64' as const };
    const data = Array.from(values, (value) => (Number.isNaN(value) ? null : value));
    return { name, data, type: 'DOUBLE' as const, nullable: true };
  });
  return new Uint8Array(parquetWriteBuffer({ columnData }));
}
