import fc from 'fast-check';
import { parseQuery, QueryError, type Query } from './parseQuery';

/** A query in brackets, to be read at a glance. */
function shown(query: Query | null): string {
  if (query === null) return '';
  switch (query.what) {
    case 'word':
      return query.text + (query.open ? '*' : '');
    case 'phrase':
      return `“${query.text}”`;
    case 'hashtag':
      return `#${query.tag}`;
    case 'account':
      return `@${query.handle}`;
    case 'link':
      return `<${query.text}>`;
    case 'not':
      return `!${shown(query.part)}`;
    default:
      return `[${query.parts.map(shown).join(query.what === 'and' ? ' & ' : ' | ')}]`;
  }
}

describe('parseQuery', () => {
  it.each([
    ['', ''],
    ['  , .  ', ''],
    ['lamp', 'lamp'],
    ['lamp*', 'lamp*'],
    ['lamp wall', '[lamp & wall]'],
    ['lamp AND wall OR moth', '[[lamp & wall] | moth]'],
    ['lamp (wall OR moth)', '[lamp & [wall | moth]]'],
    ['"sea wall" #LateLampPlan @night_bus', '[“sea wall” & #LateLampPlan & @night_bus]'],
    ['lamp NOT moth', '[lamp & !moth]'],
    ['lamp -moth -"sea wall"', '[lamp & !moth & !“sea wall”]'],
    ['NOT (a OR b)', '![a | b]'],
    ['and or not', '[and & or & not]'],
    ['https://lampfacts.example/a?b=1', '<https://lampfacts.example/a?b=1>'],
    ['lampfacts.example', '<lampfacts.example>'],
    ['22:30 café 日本', '[22:30 & café & 日本]'],
    ['a - b', '[a & b]'],
  ])('reads %j as %s', (typed, meaning) => {
    expect(shown(parseQuery(typed))).toBe(meaning);
  });

  it.each([
    ['(lamp', 'A parenthesis is not closed (at character 1)'],
    ['lamp)', 'A parenthesis is closed that was not opened (at character 5)'],
    ['lamp "sea', 'A quotation mark is not closed (at character 6)'],
    ['lamp OR', 'Something is missing at the end (at character 8)'],
    ['OR lamp', '“OR” stands where a word is expected (at character 1)'],
    ['()', '“)” stands where a word is expected (at character 2)'],
    ['('.repeat(60) + 'a', 'nested too deeply'],
  ])('says what is wrong with %j', (typed, why) => {
    expect(() => parseQuery(typed)).toThrow(QueryError);
    expect(() => parseQuery(typed)).toThrow(why);
  });

  it('reads or refuses whatever is typed, and never fails otherwise', () => {
    const typed = fc.array(
      fc.constantFrom('a', '(', ')', '"', '#x', '@y', 'AND', 'OR', 'NOT', '-b', ' ', '*', '🦋'),
    );
    fc.assert(
      fc.property(typed, (parts) => {
        try {
          parseQuery(parts.join(' '));
        } catch (error) {
          expect(error).toBeInstanceOf(QueryError);
        }
      }),
    );
  });
});
