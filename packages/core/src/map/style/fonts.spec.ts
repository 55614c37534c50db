import { fontFaceRule, isInRange } from './fonts';

describe('fonts of a figure', () => {
  it('say for which characters they are', () => {
    expect(fontFaceRule({ family: 'A', base64: 'x' })).not.toContain('unicode-range');
    expect(fontFaceRule({ family: 'A', base64: 'x', range: 'U+0400-045F' })).toContain(
      'unicode-range:U+0400-045F;',
    );
  });

  it('are told apart by ranges as CSS Fonts Module Level 4 writes them', () => {
    const range = 'U+0400-045F, U+2116, u+4??';
    expect([0x0410, 0x2116, 0x045f, 0x4a1].map((one) => isInRange(one, range))).toEqual([
      true,
      true,
      true,
      true,
    ]);
    expect([0x41, 0x2117, 0x500].map((one) => isInRange(one, range))).toEqual([false, false, false]);
    expect(isInRange(0x41, 'nonsense')).toBe(false);
  });
});
