import { WordPlaces } from './places';

describe('places of words', () => {
  const text = 'The  Lighting Board’s plan: Lighting Boards, #lamps';
  const places = new WordPlaces(text);

  it('are counted by what stands between spaces', () => {
    expect(places.of(0)).toBe(0);
    expect(places.of(text.indexOf('plan'))).toBe(3);
    expect(places.of(text.indexOf('#lamps') + 2)).toBe(6);
    expect(new WordPlaces('').of(0)).toBe(0);
  });

  it('find names, whole or by their beginnings', () => {
    expect(places.ofName('lighting board')).toEqual([1, 4]);
    expect(places.ofName('board plan')).toEqual([2]);
    expect(places.ofName('harbour')).toEqual([]);
    expect(new WordPlaces('quay—harbour office').ofName('harbour office')).toEqual([0]);
  });
});
