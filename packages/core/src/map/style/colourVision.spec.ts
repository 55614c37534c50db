import { alikeColours, lab } from './colourVision';

describe('colours that look alike', () => {
  it('are told for a red and a green that people with green blindness confuse, and not for those of Okabe & Ito (2008)', () => {
    expect(alikeColours(['#9A6A2F', '#7F7A2F'])).not.toBeNull();
    expect(alikeColours(['#0072B2', '#E69F00', '#009E73', '#CC79A7', '#56B4E9', '#D55E00'])).toBeNull();
    expect(alikeColours([])).toBeNull();
    expect(alikeColours(['#112233', '#FFFFFF', '#112233'])).toMatchObject({ a: 0, b: 2 });
  });

  it('measure by CIELAB: white is 100, 0, 0, and black 0, 0, 0', () => {
    lab([1, 1, 1]).forEach((value, i) => expect(value).toBeCloseTo([100, 0, 0][i], 0));
    lab([0, 0, 0]).forEach((value) => expect(value).toBeCloseTo(0, 6));
  });
});
