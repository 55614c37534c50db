import { Resvg } from '@resvg/resvg-js';
import { textWidth, type Face } from '../map/style/textWidth';

import { lettersFor, shippedParts } from '../testing/shippedLetters';
import { partsFor } from './fontParts';
import { visualRuns } from './runs';

/** Points of the black drawing of a path that are dark, by an independent renderer (resvg) without any fonts. */
function inked(d: string): number {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="400" height="40"><rect width="400" height="40" fill="#fff"/><path transform="translate(5 28)" d="${d}"/></svg>`;
  const { pixels } = new Resvg(svg, { font: { loadSystemFonts: false } }).render();
  let count = 0;
  for (let i = 0; i < pixels.length; i += 4) if (pixels[i] < 128) count++;
  return count;
}

describe('letters as shapes', () => {
  it.each<Face>(['plain', 'bold', 'serif', 'serifBold'])(
    'are as wide in %s as the tables by which names are placed say',
    async (face) => {
      const text = 'Who passes on @wall_lamps_now, 1,234 times?';
      const letters = await lettersFor([{ text, face }]);
      const { width } = letters({ text, face, size: 20 });
      expect(Math.abs(width / textWidth(text, 20, face) - 1)).toBeLessThan(0.03);
    },
  );

  it('are drawn by a renderer that has no fonts, bold ones darker', async () => {
    const text = 'Lamps along the quay';
    const letters = await lettersFor([
      { text, face: 'plain' },
      { text, face: 'bold' },
    ]);
    const plain = inked(letters({ text, face: 'plain', size: 20 }).d);
    const bold = inked(letters({ text, face: 'bold', size: 20 }).d);
    expect(plain).toBeGreaterThan(500);
    expect(bold).toBeGreaterThan(plain * 1.1);
  });

  it.each(['فوانيس الرصيف', 'פנסים', '灯 在 墙上', 'Лампы', 'Λάμπες', 'Šumava ő', '🌙'])(
    'are found in the further fonts: %s',
    async (text) => {
      const letters = await lettersFor([{ text, face: 'plain' }]);
      expect(inked(letters({ text, face: 'plain', size: 20 }).d)).toBeGreaterThan(40);
    },
  );

  it('take only the files that a text needs', () => {
    const parts = partsFor(shippedParts(), [{ text: 'abc', face: 'bold' }]);
    expect(parts.map(({ family, weight }) => [family, weight])).toEqual([
      ['Atkinson Hyperlegible Next', 600],
    ]);
  });
});

// The examples are from the Unicode Bidirectional Algorithm, UAX #9, section 3.4 (from memory), small letters standing for left to right.
describe('stretches of direction', () => {
  const written = (text: string): string =>
    visualRuns(text)
      .map((run) => (run.isRightToLeft ? [...run.text].reverse().join('') : run.text))
      .join('');

  it('leaves a text of one direction as it is', () => {
    expect(visualRuns('car means CAR.')).toEqual([{ text: 'car means CAR.', isRightToLeft: false }]);
  });

  it('turns what is written from right to left, but not the numbers in it', () => {
    expect(written('car אבג 123')).toBe('car 123 גבא');
  });

  it('orders a text that begins from right to left by its own direction, without marks', () => {
    expect(written('אב ab')).toBe('ab בא');
    // Set apart, it does not turn what follows.
    expect(written('\u2068אב\u2069  12')).toBe('בא  12');
  });
});
