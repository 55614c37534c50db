import type { LeakKind } from '@pebble/contract';
import { IdentityFinder, type Identity } from './identities';

const finderOf = (...texts: readonly (readonly [LeakKind, string])[]): IdentityFinder =>
  new IdentityFinder(texts.map(([kind, text]): Identity => ({ kind, text })));
const found = (finder: IdentityFinder, text: string): string[] =>
  finder.find('here', text).map((leak) => leak.text);

describe('finding who somebody is', () => {
  const finder = finderOf(
    ['handle', 'harbour_post'],
    ['handle', 'ann'],
    ['name', 'Ann of the Quay'],
    ['name', 'May'],
    ['mail address', 'ann.lee@quay.example'],
    ['message', 'p-20417-x'],
    ['message', '17'],
    ['link', 'https://hub.example/@ann/20417'],
    ['handle', '灯台守'],
    ['handle', 'café.rené'],
  );

  it.each([
    ['as it is', 'said by harbour_post today', ['harbour_post']],
    ['in capitals', 'HARBOUR_POST', ['harbour_post']],
    [
      'with other signs between its words',
      'the Harbour Post, harbour-post',
      ['harbour_post', 'harbour_post'],
    ],
    ['in a link', 'https://other.example/u/harbour_post?x=1', ['harbour_post']],
    ['in an attribute', '<circle data-id="harbour_post"/>', ['harbour_post']],
    ['in wide letters', 'ＨＡＲＢＯＵＲ＿ＰＯＳＴ', ['harbour_post']],
    ['with an accent that is written apart', 'cafe\u0301.rene\u0301', ['café.rené']],
    ['in a script without spaces', 'これは灯台守さん', ['灯台守']],
    ['a whole word only', 'annual, Hanna, harbour_posts', []],
    ['a number of a message', 'see p-20417-x', ['p-20417-x']],
    ['not a short number', '17 nodes', []],
    ['a name of one word as it is written', 'May wrote', ['May']],
    ['not as another word', 'you may write', []],
  ])('%s', (_, text, expected) => {
    expect(found(finder, text)).toEqual(expected);
  });

  it('tells the place and the words about it', () => {
    const [leak] = finder.find('caption', `${'x '.repeat(40)}harbour_post\nand more`);
    expect(leak).toMatchObject({ kind: 'handle', place: 'caption' });
    expect(leak.context).toMatch(/^…x .* harbour_post and more$/);
  });

  it('finds a name, an address and a link beside the handle in them', () => {
    expect(found(finder, 'Ann of the Quay')).toEqual(expect.arrayContaining(['Ann of the Quay', 'ann']));
    expect(found(finder, 'mailto:ann.lee@quay.example')).toContain('ann.lee@quay.example');
    expect(found(finder, 'http://hub.example/@ann/20417')).toContain('https://hub.example/@ann/20417');
  });

  it('finds each of a hundred people, however their handle is hidden, and nobody else', () => {
    const handles = Array.from({ length: 100 }, (_, i) => `quill_${(i * 7919) % 1009}_${'abcdefg'[i % 7]}`);
    const hundred = finderOf(...handles.map((text) => ['handle', text] as const));
    const hide = [
      (text: string) => `<title>${text}</title>`,
      (text: string) => `{"n":["${text}",3]}`,
      (text: string) => `#${text.toUpperCase()}`,
      (text: string) => `@${text.replaceAll('_', '.')}…`,
      (text: string) => `figure ${text}.svg`,
    ];
    handles.forEach((handle, i) =>
      expect(found(hundred, `before ${hide[i % hide.length](handle)} behind`)).toEqual([handle]),
    );
    expect(found(hundred, handles.map((handle) => `${handle}x a${handle}`).join(' '))).toEqual([]);
  });
});
