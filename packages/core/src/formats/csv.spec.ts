import fc from 'fast-check';
import { CsvReader } from './csv';
import { csvRow, safeCsvRow } from './writeCsv';

function read(
  text: string,
  delimiter = ',',
  pieces = 7,
): { header: readonly string[]; rows: string[][]; lines: number[]; skipped: [number, string][] } {
  const out = {
    header: [] as readonly string[],
    rows: [] as string[][],
    lines: [] as number[],
    skipped: [] as [number, string][],
  };
  const reader = new CsvReader(
    delimiter,
    {
      onRecord: ({ row, values }) => {
        out.rows.push([...values]);
        out.lines.push(row);
      },
      onSkip: (row, _field, reason) => void out.skipped.push([row, reason]),
    },
    (header) => (out.header = header),
  );
  for (let i = 0; i < text.length; i += pieces) reader.write(text.slice(i, i + pieces));
  reader.end();
  return out;
}

describe('CsvReader, RFC 4180', () => {
  it('reads the forms of section 2: line breaks, quoted commas, doubled quotes, no last line break', () => {
    const { header, rows } = read('a,b,c\r\n"aaa","b\r\nbb","ccc"\r\nzzz,"y""yy",xxx');
    expect(header).toEqual(['a', 'b', 'c']);
    expect(rows).toEqual([
      ['aaa', 'b\nbb', 'ccc'],
      ['zzz', 'y"yy', 'xxx'],
    ]);
  });

  it('counts lines of the file, also after a field over several lines', () => {
    expect(read('a,b\n"1\n2\n3",x\ny,z\n').lines).toEqual([2, 5]);
  });

  it('lists rows with too few or too many fields, and keeps the others', () => {
    const { rows, skipped } = read('a,b\n1\n1,2,3\n1,2,\n3,4\n');
    expect(rows).toEqual([
      ['1', '2'],
      ['3', '4'],
    ]);
    expect(skipped).toEqual([
      [2, 'The row has 1 field, the header has 2.'],
      [3, 'The row has 3 fields, the header has 2.'],
    ]);
  });

  it('loses one line to a quotation mark that is never closed, not the rest of the file', () => {
    const { rows, skipped } = read('a,b\n1,"open, x\n3,4\n5,6\n');
    expect(skipped.map(([row]) => row)).toEqual([2]);
    expect(rows).toEqual([
      ['3', '4'],
      ['5', '6'],
    ]);
  });

  it('keeps a quotation mark in the middle of a field as it is', () => {
    expect(read('a,b\n5" pipe,x\ny,z\n').rows).toEqual([
      ['5" pipe', 'x'],
      ['y', 'z'],
    ]);
  });

  it('names empty and repeated columns', () => {
    expect(read('a,,a\n1,2,3\n').header).toEqual(['a', 'column 2', 'a (2)']);
  });

  it('reads back what we write, whatever the cells', () => {
    const cell = fc.string({ unit: fc.constantFrom('a', '"', ',', ' ', '\n', 'é', '=', '🦋') });
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell, cell), { maxLength: 8 }), (rows) => {
        const kept = rows.map((row) => row.map((c, i) => (i === 0 ? `x${c}` : c)));
        expect(read('a,b,c\r\n' + kept.map((row) => csvRow(row)).join('')).rows).toEqual(kept);
      }),
    );
  });
});

describe('safeCsvRow', () => {
  it('makes cells harmless that a spreadsheet would run (common practice)', () => {
    // A cell that was changed is quoted too.
    expect(['=1+1', '+x', '-x', '@SUM(A1)', '\tx'].map((cell) => safeCsvRow([cell]))).toEqual(
      ["'=1+1", "'+x", "'-x", "'@SUM(A1)", "'\tx"].map((cell) => `"${cell}"\r\n`),
    );
    const plain = ['-5', '-0.5e-3', 'a=b', ''];
    expect(safeCsvRow(plain)).toBe(csvRow(plain));
    expect(safeCsvRow(['=A1,B1', 5, null])).toBe(`"'=A1,B1",5,\r\n`);
  });
});
