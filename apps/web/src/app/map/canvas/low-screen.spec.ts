import { defaultMap, LegendPart } from '@pebble/contract';
import { onScreen, screenMargin } from './low-screen';

describe('a map on a low screen', () => {
  const [low, usual] = [180, 620].map((height) => ({ width: 540, height }));

  it('has no legend, and the room that it would take', () => {
    expect(onScreen(defaultMap, low).legend.without).toEqual(LegendPart.options);
    expect(screenMargin(defaultMap, low, 0).left).toBeLessThan(20);
    expect(screenMargin(defaultMap, low, 124).bottom).toBe(164);
  });

  it('is as it is on any other', () => {
    expect(onScreen(defaultMap, usual)).toBe(defaultMap);
    const right = { ...defaultMap, legend: { ...defaultMap.legend, corner: 'upper right' as const } };
    expect(screenMargin(right, usual, 10)).toEqual({ left: 30, right: 208, top: 62, bottom: 66 });
  });
});
