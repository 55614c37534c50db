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

  it.each([
    ['We won.It was late, and nobody came.', []],
    ['We won.it was late', []],
    ['see README.md and main.py', []],
    ['Fine.Thanks.Bye', []],
    ['no such.ending here', []],
    [
      'lampfacts.org and tide.co.uk, (quay.info)',
      ['http://lampfacts.org', 'http://tide.co.uk', 'http://quay.info'],
    ],
    ['won.it/prize www.won.it', ['http://won.it/prize', 'http://www.won.it']],
    ['LAMPFACTS.ORG', ['http://LAMPFACTS.ORG']],
    ['tidepost.example', ['http://tidepost.example']],
  ])('takes for a bare domain what is one by a known ending and a plausible form: “%s”', (text, links) => {
    expect(found(text, 'link')).toEqual(links);
  });

  it.each([
    ['@bob.It is late', ['bob']],
    ['@Bob.It is late', ['Bob']],
    ['thanks @marsh_moths.We go', ['marsh_moths']],
    ['@Ada.Larkin stays whole', ['Ada.Larkin']],
    ['@a.b.c', ['a.b.c']],
  ])('ends a name where a new sentence begins without a space: “%s”', (text, handles) => {
    expect(found(text, 'mention')).toEqual(handles);
    for (const { start, end, key, what } of findSpans(text))
      if (what === 'mention') expect(text.slice(start + 1, end)).toBe(key);
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
