import fc from 'fast-check';
import { orderOf, type Asked, type Table, type Value } from './table-order';
import { TableSource } from './table-source';

const tableOf = (columns: Readonly<Record<string, readonly Value[]>>): Table => ({
  rows: Object.values(columns)[0].length,
  names: Object.keys(columns),
  column: (name) => (row) => columns[name][row],
});
const NOTHING: Asked = { sort: [], filter: {}, words: '' };

const ACCOUNTS = tableOf({
  handle: ['moth_line', 'Key_Lane', 'tide_slip', 'moth_ears'],
  degree: [3, 12, NaN, 3],
  role: ['', 'press', 'Press office', 'none'],
});
const rows = (asked: Partial<Asked>): number[] => [...orderOf(ACCOUNTS, { ...NOTHING, ...asked })];

describe('the order of a table', () => {
  it('is by one column, then the next, with what has no value last either way', () => {
    expect(rows({ sort: [{ colId: 'degree', sort: 'desc' }] })).toEqual([1, 0, 3, 2]);
    expect(rows({ sort: [{ colId: 'degree', sort: 'asc' }] })).toEqual([0, 3, 1, 2]);
    expect(
      rows({
        sort: [
          { colId: 'degree', sort: 'asc' },
          { colId: 'handle', sort: 'asc' },
        ],
      }),
    ).toEqual([3, 0, 1, 2]);
  });

  it('passes by what is asked of columns of another table', () => {
    const filter = { weight: { filterType: 'number', type: 'equals', filter: 1 } };
    expect(rows({ sort: [{ colId: 'weight', sort: 'desc' }], filter })).toEqual([0, 1, 2, 3]);
  });

  it('leaves rows out that lack a word, in any case and column', () => {
    expect(rows({ words: 'MOTH' })).toEqual([0, 3]);
    expect(rows({ words: 'press tide' })).toEqual([2]);
    expect(rows({ words: '  ' })).toEqual([0, 1, 2, 3]);
  });

  it.each([
    ['role', { filterType: 'text', type: 'contains', filter: 'press' }, [1, 2]],
    ['role', { filterType: 'text', type: 'notContains', filter: 'press' }, [0, 3]],
    ['role', { filterType: 'text', type: 'equals', filter: 'PRESS' }, [1]],
    ['role', { filterType: 'text', type: 'startsWith', filter: 'press o' }, [2]],
    ['role', { filterType: 'text', type: 'endsWith', filter: 'ce' }, [2]],
    ['role', { filterType: 'text', type: 'blank' }, [0]],
    ['degree', { filterType: 'number', type: 'notBlank' }, [0, 1, 3]],
    ['degree', { filterType: 'number', type: 'greaterThan', filter: 3 }, [1]],
    ['degree', { filterType: 'number', type: 'lessThanOrEqual', filter: 3 }, [0, 3]],
    ['degree', { filterType: 'number', type: 'inRange', filter: 3, filterTo: 13 }, [1]],
    [
      'degree',
      {
        filterType: 'number',
        operator: 'OR',
        conditions: [
          { filterType: 'number', type: 'equals', filter: 12 },
          { filterType: 'number', type: 'blank' },
        ],
      },
      [1, 2],
    ],
  ])('asks of %s what the head of the column says: %j', (name, model, kept) => {
    expect(rows({ filter: { [name]: model } })).toEqual(kept);
  });

  it('has every row once, in falling order, whatever the values', () => {
    const value = fc.oneof(fc.integer(), fc.double());
    fc.assert(
      fc.property(fc.array(value, { minLength: 1, maxLength: 60 }), (values) => {
        const order = [
          ...orderOf(tableOf({ x: values }), { ...NOTHING, sort: [{ colId: 'x', sort: 'desc' }] }),
        ];
        expect([...order].sort((a, b) => a - b)).toEqual(values.map((_, i) => i));
        const known = order.map((row) => values[row]).filter((one) => !Number.isNaN(one));
        expect(known).toEqual([...known].sort((a, b) => (a < b ? 1 : a > b ? -1 : 0)));
        expect(order.slice(known.length).every((row) => Number.isNaN(values[row]))).toBe(true);
      }),
    );
  });
});

describe('a source of rows', () => {
  it('gives the piece that is asked for, with how many there are, and knows where each stands', () => {
    const source = new TableSource(() => ({ table: ACCOUNTS, prefix: 'n', words: 'moth' }));
    const given: [unknown[], number | undefined][] = [];
    source.getRows({
      startRow: 1,
      endRow: 100,
      sortModel: [{ colId: 'handle', sort: 'asc' }],
      filterModel: {},
      successCallback: (rows, last) => given.push([rows, last]),
      failCallback: () => undefined,
      context: null,
      api: null as never,
    });
    expect(given).toEqual([[[{ handle: 'moth_line', degree: 3, role: '', id: 'n0', row: 0 }], 2]]);
    expect([source.placeOf(3), source.placeOf(0), source.placeOf(1)]).toEqual([0, 1, -1]);
  });
});
