import { expandTemplate } from './hubConnector';
import { retryAfter } from './serviceClient';

// RFC 9110, section 10.2.3: Retry-After is a date or a number of seconds; its examples.
describe('retryAfter', () => {
  const said = (value: string): number | null =>
    retryAfter(
      { headers: new Headers({ 'retry-after': value }) },
      Date.parse('Fri, 31 Dec 1999 23:58:59 GMT'),
    );

  it.each([
    ['120', 120],
    ['0', 0],
    ['Fri, 31 Dec 1999 23:59:59 GMT', 60],
    ['Fri, 31 Dec 1998 23:59:59 GMT', 0],
    ['soon', null],
  ])('%s: %s', (value, seconds) => {
    expect(said(value)).toBe(seconds);
  });

  it('says nothing where nothing is said', () => {
    expect(retryAfter({ headers: new Headers() })).toBeNull();
  });
});

// RFC 6570, section 3.2: simple string expansion and form-style queries; the explode modifier repeats the name.
describe('expandTemplate', () => {
  it.each([
    [
      'http://a.example/dict{?term,lang}',
      { term: 'a b', lang: 'en' },
      'http://a.example/dict?term=a%20b&lang=en',
    ],
    ['http://a.example/dict{?term,lang}', { term: '', lang: '' }, 'http://a.example/dict'],
    ['http://a.example/accounts{?id*}', { id: ['x', 'y/z'] }, 'http://a.example/accounts?id=x&id=y%2Fz'],
    ['http://a.example/actors/{name}', { name: 'ann&co' }, 'http://a.example/actors/ann%26co'],
  ])('%s', (template, values, url) => {
    expect(expandTemplate(template, values)).toBe(url);
  });
});
