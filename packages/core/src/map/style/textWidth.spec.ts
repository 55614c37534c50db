import { clipApart, textWidth } from './textWidth';

const cut = (...texts: string[]): string[] => clipApart(texts, 12, 'plain', 144);

describe('texts that are cut beside each other', () => {
  it('stay as they are where they fit, and are cut at the end where they differ before it', () => {
    expect(cut('quay', 'harbour watch')).toEqual(['quay', 'harbour watch']);
    const [one, other] = cut(
      'Council of the lower town and its quays',
      'Harbour watch of the lower town at night',
    );
    expect(one).toMatch(/^Council of the lower.*…$/);
    expect(other).toMatch(/^Harbour watch of.*…$/);
  });

  it('keep what tells them apart, within the width', () => {
    const long = ['north', 'south', 'east'].map((side) => `Friends of the lamps along the ${side} quay`);
    const found = cut(...long);
    expect(new Set(found).size).toBe(3);
    found.forEach((text, i) => {
      expect(text).toMatch(/^Friends.*…/);
      expect(text).toContain(['north', 'south', 'east'][i].slice(0, 4));
      expect(textWidth(text, 12, 'plain')).toBeLessThanOrEqual(144);
    });
  });

  it('are numbered where too little is left to tell them apart', () => {
    const same = 'x'.repeat(80);
    const found = cut(`${same}a${same}1`, `${same}a${same}1b`, `${same}b`);
    expect(new Set(found).size).toBe(3);
  });

  it('read the same where they are the same', () => {
    const twice = 'Friends of the lamps along the northern quay';
    const [one, other] = cut(twice, twice);
    expect(one).toBe(other);
  });
});
