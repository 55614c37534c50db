import fc from 'fast-check';
import { asRows, asText } from './pasted-cells';

describe('pasted cells', () => {
  it('become rows, with empty cells kept, also the first', () => {
    expect(asRows('\ta\tb\r\na\t0\t1\r\nb\t1\t\r\n')).toEqual([
      ['', 'a', 'b'],
      ['a', '0', '1'],
      ['b', '1', ''],
    ]);
  });

  it('may hold tabs, line ends and quotation marks in quotation marks', () => {
    expect(asRows('x\t"two\nlines"\t"a ""b"" c"\nhe said "no"\t\t')).toEqual([
      ['x', 'two\nlines', 'a "b" c'],
      ['he said "no"', '', ''],
    ]);
  });

  it('are none when nothing was pasted', () => {
    expect(asRows('')).toEqual([]);
    expect(asRows('\n\n')).toEqual([]);
  });

  it('come back the same from their text', () => {
    const cell = fc.stringMatching(/^[a-z "\t\n]{0,6}$/);
    const rows = fc
      .tuple(fc.integer({ min: 2, max: 4 }), fc.integer({ min: 1, max: 5 }))
      .chain(([width, height]) =>
        fc.array(fc.array(cell, { minLength: width, maxLength: width }), {
          minLength: height,
          maxLength: height,
        }),
      );
    fc.assert(
      fc.property(rows, (cells) => {
        // Rows of empty cells at the end cannot be told from line ends.
        const marked = [...cells, cells[0].map(() => 'end')];
        expect(asRows(asText(marked))).toEqual(marked);
      }),
    );
  });
});
