import { CATEGORY_COLOURS, NIGHT, OTHER_COLOUR, PAPER, rampColour } from './palette';

/** Relative luminance of a colour by WCAG 2.2, 0 to 1. */
function luminance(colour: string): number {
  const [r, g, b] = [1, 3, 5].map((i) => {
    const value = parseInt(colour.slice(i, i + 2), 16) / 255;
    return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

/** Contrast of two colours by WCAG 2.2, 1 to 21. */
function contrast(a: string, b: string): number {
  const [low, high] = [luminance(a), luminance(b)].sort((x, y) => x - y);
  return (high + 0.05) / (low + 0.05);
}

it('measures contrast as WCAG 2.2 defines it: black on white is 21', () => {
  expect(contrast('#000000', '#FFFFFF')).toBeCloseTo(21, 6);
});

describe.each([
  ['paper', PAPER],
  ['night', NIGHT],
])('the theme %s', (_, theme) => {
  it('writes with at least the contrast of WCAG 2.2 AA for text', () => {
    for (const colour of [theme.ink, theme.soft, theme.mark])
      expect(contrast(colour, theme.ground)).toBeGreaterThanOrEqual(4.5);
  });

  it('shows its categories against the ground', () => {
    for (const colour of [...CATEGORY_COLOURS, OTHER_COLOUR])
      expect(contrast(colour, theme.ground)).toBeGreaterThan(1.8);
  });
});

it('has categories that differ, six of them those of Okabe & Ito (2008)', () => {
  expect(new Set(CATEGORY_COLOURS).size).toBe(8);
  for (const known of ['#0072B2', '#E69F00', '#009E73', '#CC79A7', '#56B4E9', '#D55E00'])
    expect(CATEGORY_COLOURS).toContain(known);
});

describe('the ramp', () => {
  it('gets darker from little to much, at every step', () => {
    const steps = Array.from({ length: 21 }, (_, i) => luminance(rampColour(i / 20)));
    steps.slice(1).forEach((value, i) => expect(value).toBeLessThan(steps[i]));
  });

  it('stays in its range', () => {
    expect(rampColour(-1)).toBe(rampColour(0));
    expect(rampColour(2)).toBe(rampColour(1));
  });
});
