import fc from 'fast-check';
import { JsonItemCutter, type JsonItem } from './jsonItems';

function cut(text: string, pieces = [text.length]): JsonItem[] {
  const items: JsonItem[] = [];
  const cutter = new JsonItemCutter((item) => items.push(item));
  let at = 0;
  for (const size of pieces) {
    cutter.write(text.slice(at, at + size));
    at += size;
  }
  cutter.write(text.slice(at));
  cutter.end();
  return items;
}

const texts = (text: string): unknown[] => cut(text).map((item) => JSON.parse(item.text) as unknown);

describe('JsonItemCutter', () => {
  it('cuts a list, with the line on which each item begins', () => {
    expect(cut('[\n  {"a": 1},\n  {"a": [2, 3]}\n]')).toEqual([
      { row: 2, text: '{"a": 1}' },
      { row: 3, text: '{"a": [2, 3]}' },
    ]);
  });

  it('finds the list inside of an object, past other members', () => {
    expect(texts('{"meta": {"next": "x"}, "total": 2, "data": [{"a": 1}, {"a": 2}], "items": [9]}')).toEqual([
      { a: 1 },
      { a: 2 },
    ]);
    expect(texts('{"response": {"posts": [{"a": 1}]}}')).toEqual([{ a: 1 }]);
  });

  it('takes no other list for it', () => {
    const cutter = new JsonItemCutter(() => undefined);
    cutter.write('{"tags": ["a", "b"], "n": 1}');
    expect(cutter.found).toBe(false);
  });

  it('is not led astray by brackets and commas in texts', () => {
    expect(texts('[{"t": "a, ]} \\" b"}, "plain, text", 7, null, []]')).toEqual([
      { t: 'a, ]} " b' },
      'plain, text',
      7,
      null,
      [],
    ]);
  });

  it('says so when the file ends in the middle', () => {
    expect(() => cut('[{"a": 1},\n{"a": ')).toThrow('line 2');
  });

  it('gives what JSON.parse gives, wherever the pieces are cut', () => {
    fc.assert(
      fc.property(
        fc.array(fc.jsonValue({ maxDepth: 3 }), { maxLength: 6 }),
        fc.array(fc.integer({ min: 1, max: 9 }), { maxLength: 30 }),
        fc.constantFrom(0, 2),
        (values, pieces, indent) => {
          const items = cut(JSON.stringify(values, null, indent), pieces);
          expect(items.map((item) => JSON.parse(item.text) as unknown)).toEqual(
            JSON.parse(JSON.stringify(values)),
          );
        },
      ),
    );
  });
});
