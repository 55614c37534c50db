import { pointsOf, PURPOSES, readableLettering } from './figure-sizes';

describe('sizes of figures', () => {
  it('are those of print: 85 mm at 300 dots to the inch are 1,004 pixels', () => {
    const [column] = PURPOSES;
    expect([column.width, column.resolution, column.aspect]).toEqual([1004, 300, null]);
    for (const { width } of PURPOSES) expect(width).toBeLessThanOrEqual(8000);
    expect(PURPOSES.find(({ words }) => words.includes('slide'))!.aspect).toBeCloseTo(1.778, 3);
  });

  it('have letters that can be read', () => {
    // 12 pixels of 1,200 in a picture of 6 inches: 6 / 100 inches, 4.32 points.
    expect(pointsOf(12, 1200, 1800, 300)).toBeCloseTo(4.32, 10);
    const factor = readableLettering({ width: 1800, resolution: 300, letters: 6.5 }, 12, 1200);
    // The page is as much smaller as letters are larger.
    expect(pointsOf(12, 1200 / factor, 1800, 300)).toBeCloseTo(6.5, 1);
    expect(readableLettering({ width: 300, resolution: 1200, letters: 6.5 }, 12, 1200)).toBe(3);
    expect(readableLettering({ width: 8000, resolution: 72, letters: 6.5 }, 12, 1200)).toBe(0.5);
  });
});
