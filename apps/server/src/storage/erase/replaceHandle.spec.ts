import { handleReplacer } from './replaceHandle';

describe('replacing a handle', () => {
  it.each([
    ['ann', 'Hello @Ann, and ann!', 'Hello @forgotten, and forgotten!'],
    ['ann', 'annual joann @ann_b ann-b x.ann', 'annual joann @ann_b ann-b x.ann'],
    ['ann', 'https://hub.example/@ann/7', 'https://hub.example/@forgotten/7'],
    ['ann', '{"author":"ann","more":["ann"]}', '{"author":"forgotten","more":["forgotten"]}'],
    ['ann', '“ann” was merged into “bob”', '“forgotten” was merged into “bob”'],
    ['ann@hub.example', '@ann@hub.example and @ann, ann', '@forgotten and @forgotten, ann'],
    ['ann@hub.example', '@ann@other.example', '@ann@other.example'],
    ['a.b+c@x.example', 'to a.b+c@x.example.', 'to forgotten.'],
    ['Łukasz', 'łukasz, Łukasza', 'forgotten, Łukasza'],
  ])('%s in %s', (handle, text, replaced) => {
    expect(handleReplacer(handle).replace(text)).toBe(replaced);
  });

  it.each([
    [
      'lamps',
      'Dim the lamps, @lamps! https://hub.example/lamps/1',
      'Dim the lamps, @forgotten! https://hub.example/forgotten/1',
    ],
    ['lamp_line', 'as lamp_line says', 'as forgotten says'],
  ])('in what people wrote: %s in %s', (handle, text, replaced) => {
    expect(handleReplacer(handle, 'written').replace(text)).toBe(replaced);
  });
});
