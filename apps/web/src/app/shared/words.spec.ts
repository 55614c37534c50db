import { withResolution } from '@pebble/core';
import { bytes, counted, day, duration, moment, shortened } from './words';

it('says counts, times and sizes in words', () => {
  expect(counted(1, 'tie')).toBe('1 tie');
  expect(counted(12345, 'message')).toBe('12,345 messages');
  expect(moment(null)).toBe('no date');
  expect(moment(Date.UTC(2026, 2, 12, 23, 48))).toContain('23:48');
  expect(day(Date.UTC(2026, 2, 12))).toBe('12 March 2026');
  expect([5, 4200, 200_000].map(duration)).toEqual(['5 ms', '4.2 s', '3 minutes']);
  expect([12, 2048, 3 * 1024 ** 2].map(bytes)).toEqual(['12 bytes', '2 KB', '3.0 MB']);
});

it('writes the resolution behind the header of a PNG (W3C PNG specification, pHYs)', () => {
  const png = new Uint8Array(40).map((_, i) => i);
  const out = withResolution(png, 300);
  expect(out).toHaveLength(61);
  expect(String.fromCharCode(...out.slice(37, 41))).toBe('pHYs');
  expect(new DataView(out.buffer).getUint32(41)).toBe(11811);
  expect(out[61 - 7]).toBe(33);
});

it('what is too long for a name is cut, with a mark', () => {
  expect(shortened('posts.csv')).toBe('posts.csv');
  expect(shortened('x'.repeat(201))).toBe(`${'x'.repeat(199)}…`);
  expect(shortened('a long name', 7)).toBe('a long…');
});
