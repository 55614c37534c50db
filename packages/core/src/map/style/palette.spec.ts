import { CATEGORY_COLOURS, contrast, luminance, NIGHT, OTHER_COLOUR, PAPER, rampColour } from './palette';

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
