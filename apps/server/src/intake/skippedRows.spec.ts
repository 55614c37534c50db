import { SkippedRows } from './skippedRows';

describe('SkippedRows', () => {
  it('counts reasons without what they name, the most frequent first', () => {
    const rows = new SkippedRows();
    rows.add({ row: 2, field: 'time', reason: 'The date cannot be read: “never”.' });
    rows.add({ row: 3, field: 'author', reason: 'The row has no author.' });
    rows.add({ row: 4, field: 'time', reason: 'The date cannot be read: “soon”.' });
    expect(rows.byReason()).toEqual([
      { reason: 'The date cannot be read', rows: 2 },
      { reason: 'The row has no author', rows: 1 },
    ]);
    expect(rows.firstReason()).toBe('Line 2: The date cannot be read: “never”.');
  });

  it('lists them for a download in which nothing runs as a formula', () => {
    const rows = new SkippedRows();
    rows.add({ row: 2, field: '=1+1', reason: 'a, b' });
    expect(rows.csv).toBe(`line,field,reason,file\r\n2,"'=1+1","a, b",\r\n`);
  });

  it('has something to say when the file had no rows at all', () => {
    expect(new SkippedRows().firstReason()).toBe('It has a header and no rows.');
    expect(new SkippedRows().notes()).toEqual([]);
  });
});
