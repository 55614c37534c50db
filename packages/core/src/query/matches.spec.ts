import { matches } from './matches';
import { parseQuery } from './parseQuery';

const message = {
  text: 'The Sea Wall lamps, très amber #DimTheWall @harbour_post https://lamps.example/a',
  author: 'Ann',
};

describe('matches', () => {
  it.each([
    ['lamps', true],
    ['LAMPS amber', true],
    ['lamp', false],
    ['lamp*', true],
    ['"sea wall"', true],
    ['"wall sea"', false],
    ['tres', true],
    ['#dimthewall', true],
    ['#wall', false],
    ['@ann', true],
    ['@harbour_post', true],
    ['@ben', false],
    ['lamps.example', true],
    ['lamps NOT amber', false],
    ['pie OR amber', true],
    ['(pie OR amber) -moths', true],
  ])('%s: %s', (query, fits) => {
    expect(matches(parseQuery(query)!, message)).toBe(fits);
  });
});
