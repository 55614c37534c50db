import fc from 'fast-check';
import { hashtagKey } from './hashtags';
import { handleKey } from './mentions';
import { findSpans } from './spans';

const found = (text: string, what: string): string[] =>
  findSpans(text)
    .filter((s) => s.what === what)
    .map((s) => s.key);

describe('findSpans', () => {
  it.each([
    ['#DimTheWall now', ['DimTheWall']],
    ['(#café) #naïve, #日本語! #Привет', ['café', 'naïve', '日本語', 'Привет']],
    ['#lamp_post2 and #🦋moths', ['lamp_post2', '🦋moths']],
    ['number #1 is none, C# neither, &#39; neither', []],
    ['#one#two', ['one']],
    ['＃全角', ['全角']],
    ['#a-b ends at the hyphen', ['a']],
  ])('finds hashtags by Unicode Annex 31 in “%s”', (text, tags) => {
    expect(found(text, 'hashtag')).toEqual(tags);
  });

  it.each([
    ['@marsh_moths and @a.b.', ['marsh_moths', 'a.b']],
    ['@name@host.example hello', ['name@host.example']],
    ['mail me at someone@place.example', []],
    ['(@quay) .@slip @x', ['quay', 'x']],
    ['https://tidepost.example/@someone/1 has none', []],
    ['@@double @', []],
  ])('finds mentions in “%s”', (text, handles) => {
    expect(found(text, 'mention')).toEqual(handles);
  });

  it('finds links, and nothing inside them', () => {
    const text = 'see https://lampfacts.example/a#part?x=@me, and (http://x.example/y).';
    expect(found(text, 'link')).toEqual(['https://lampfacts.example/a#part?x=@me', 'http://x.example/y']);
    expect(found(text, 'mention')).toEqual([]);
    expect(found(text, 'hashtag')).toEqual([]);
  });

  it('gives spans in order, within the text and without overlap, whatever the text', () => {
    const texts = fc
      .array(
        fc.constantFrom(
          '@',
          '#',
          'a',
          'é',
          '🦋',
          ' ',
          '.',
          'https://x.example/',
          '_',
          '-',
          '١',
          '\u0000',
          '\u202e',
        ),
        { maxLength: 30 },
      )
      .map((parts) => parts.join(''));
    fc.assert(
      fc.property(texts, (text) => {
        let at = 0;
        for (const span of findSpans(text)) {
          expect(span.start).toBeGreaterThanOrEqual(at);
          expect(span.end).toBeGreaterThan(span.start);
          at = span.end;
        }
        expect(at).toBeLessThanOrEqual(text.length);
      }),
    );
  });
});

it('compares handles and hashtags without sign, case and compatibility forms', () => {
  expect(handleKey(' @Night_Bus ')).toBe('night_bus');
  expect(hashtagKey('ＤｉｍTheWall')).toBe(hashtagKey('dimthewall'));
});
