import { useComputed, useSignal, type Signal } from '@preact/signals';
import { formatCount, formatValue, numbersOf, textsIn, type TableColumns } from '@pebble/core';
import { held, whole } from './held';
import { endsOf, labels, map, picked } from './looking';
import { goTo } from './node-list';

/** Rows that are there at first, and that come each time. */
const PAGE = 100;

/** A column of a table: how it is sorted, and what stands in it. */
interface Column {
  readonly title: string;
  readonly how?: string;
  readonly isNumber: boolean;
  value(row: number): number | string;
  cell?(row: number): string;
}

const { network } = whole.map;

function columnOf(name: string, title: string, how: string, values: TableColumns[string]): Column {
  const titles = held.map.titles[name];
  const texts = ArrayBuffer.isView(values) ? null : textsIn(values);
  return {
    title,
    how,
    isNumber: texts === null,
    value: (row) => (texts ? texts[row] : Number((values as Float64Array)[row])),
    cell: (row) => {
      const value = texts ? texts[row] : Number((values as Float64Array)[row]);
      const title = titles?.[String(value)];
      if (title) return title;
      return typeof value === 'number' ? (Number.isNaN(value) ? '' : formatValue(value)) : value;
    },
  };
}

const nodeColumns: readonly Column[] = [
  { title: held.map.nodeWords[0], isNumber: false, value: (row) => labels[row] },
  ...Object.entries(held.map.infos).map(([name, { title, how }]) =>
    columnOf(name, title, how, network.nodes[name]),
  ),
];
const tieColumns: readonly Column[] = [
  { title: held.map.directed ? 'from' : 'between', isNumber: false, value: (row) => labels[endsOf(row)[0]] },
  { title: held.map.directed ? 'to' : 'and', isNumber: false, value: (row) => labels[endsOf(row)[1]] },
  columnOf('weight', 'weight', '', numbersOf(network.edges, 'weight')),
  ...Object.keys(network.edges)
    .filter((name) => !['source', 'target', 'weight'].includes(name))
    .map((name) => columnOf(name, name, '', network.edges[name])),
];

/** What is shown of the map as tables, which can be sorted. */
export function Tables() {
  const nodes = useComputed(() => Array.from(map.value.nodes));
  const ties = useComputed(() => Array.from(map.value.edges));
  return (
    <>
      <Table
        caption={`The ${held.map.nodeWords[1]} that are shown`}
        columns={nodeColumns}
        rows={nodes}
        pick={goTo}
      />
      <Table
        caption="The ties that are shown"
        columns={tieColumns}
        rows={ties}
        pick={(tie) => (picked.value = { what: 'tie', tie })}
      />
    </>
  );
}

interface TableProps {
  readonly caption: string;
  readonly columns: readonly Column[];
  readonly rows: Signal<readonly number[]>;
  readonly pick: (row: number) => void;
}

function Table({ caption, columns, rows, pick }: TableProps) {
  const by = useSignal(
    Math.max(
      0,
      columns.findIndex(({ isNumber }) => isNumber),
    ),
  );
  const isFalling = useSignal(true);
  const length = useSignal(PAGE);
  const sorted = useComputed(() => {
    const { isNumber, value } = columns[by.value];
    const sign = isFalling.value ? -1 : 1;
    const order = isNumber
      ? (a: number, b: number): number => (Number(value(a)) - Number(value(b)) || 0) * sign || a - b
      : (a: number, b: number): number =>
          String(value(a)).localeCompare(String(value(b)), 'en') * sign || a - b;
    return [...rows.value].sort(order);
  });
  const sortBy = (at: number): void => {
    isFalling.value = by.value === at ? !isFalling.value : columns[at].isNumber;
    by.value = at;
  };
  return (
    <details>
      <summary>
        {caption}: {formatCount(rows.value.length)}
      </summary>
      <div class="scroll" tabIndex={0} role="region" aria-label={caption}>
        <table>
          <thead>
            <tr>
              {columns.map(({ title, how, isNumber }, at) => (
                <th
                  key={at}
                  scope="col"
                  class={isNumber ? 'number' : ''}
                  aria-sort={by.value === at ? (isFalling.value ? 'descending' : 'ascending') : undefined}
                >
                  <button type="button" class="link" title={how} onClick={() => sortBy(at)}>
                    {title}
                    {by.value === at ? (isFalling.value ? ' ↓' : ' ↑') : ''}
                  </button>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {sorted.value.slice(0, length.value).map((row) => (
              <tr key={row}>
                {columns.map(({ value, cell, isNumber }, at) => (
                  <td key={at} class={isNumber ? 'number' : ''}>
                    {at === 0 ? (
                      <button type="button" class="link" onClick={() => pick(row)}>
                        {String(value(row))}
                      </button>
                    ) : (
                      (cell?.(row) ?? String(value(row)))
                    )}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {rows.value.length > length.value && (
        <p>
          <button type="button" onClick={() => (length.value += 10 * PAGE)}>
            More rows
          </button>{' '}
          <span class="soft">{formatCount(length.value)} are there.</span>
        </p>
      )}
    </details>
  );
}
