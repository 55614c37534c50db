import { contentWords, domainOf, linkKey, placedWords, plainText, sameText } from './tokens';

describe('words of a text', () => {
  it('are those that say something, in small letters', () => {
    expect(
      contentWords('The LAMPS of the sea-wall aren’t on @ann #Lamps https://a.example/x 22', 'en'),
    ).toEqual(['lamps', 'sea-wall']);
    expect(contentWords('Les lampes de la digue', 'fr')).toEqual(['lampes', 'digue']);
    expect(contentWords('Kerti lámpák', 'hu')).toEqual(['kerti', 'lámpák']);
  });

  it('are known with their places', () => {
    const text = 'Lamps at https://a.example/x by the sea-wall';
    expect(placedWords(text, 'en').map(({ word, start }) => [word, text.slice(start, start + 3)])).toEqual([
      ['lamps', 'Lam'],
      ['sea-wall', 'sea'],
    ]);
  });

  it('can be told without links, mentions and hashtags', () => {
    expect(plainText('a @b c #d e').replace(/\s+/g, ' ')).toBe('a c e');
  });
});

describe('what makes two posts the same', () => {
  it('is the text without case, marks, links and mentions', () => {
    const one = sameText('Keep the LAMPS on, please! https://a.example/1 @ann');
    expect(one).toBe('keep the lamps on please');
    expect(sameText('keep the lamps on … please @ben')).toBe(one);
  });

  it('is nothing for a few words that anyone may say', () => {
    expect(sameText('Thank you!')).toBe('');
  });
});

describe('links', () => {
  it.each([
    ['https://www.Harbour.example/a', 'harbour.example', 'harbour.example/a'],
    ['http://harbour.example:80/A/#top', 'harbour.example', 'harbour.example:80/A'],
    ['https://name@lamps.example/', 'lamps.example', 'name@lamps.example'],
  ])('%s', (link, domain, key) => {
    expect(domainOf(link)).toBe(domain);
    expect(linkKey(link)).toBe(key);
  });

  it('have no domain without a host', () => {
    expect(domainOf('mailto:a@b.example')).toBeNull();
  });
});

describe('words of scripts without spaces', () => {
  // By the dictionaries of ICU (Unicode Standard Annex 29), as Node.js and browsers have them.
  it.each([
    ['港の街灯を暗くする計画', 'ja', ['街灯', '暗く', '計画']],
    ['海堤上的路灯 are dim', 'zh', ['路灯', 'dim']],
    ['แสงไฟที่ท่าเรือ', 'th', ['แสง', 'ท่าเรือ']],
  ])('%s', (text, language, words) => {
    expect(contentWords(text, language)).toEqual(expect.arrayContaining(words));
  });

  it('stand at their places', () => {
    const text = 'see 街灯計画 now';
    for (const { word, start } of placedWords(text, 'ja'))
      expect(text.slice(start)).toMatch(new RegExp(`^${word}`));
  });
});
