import fc from 'fast-check';
import { slicesOf } from './slices';

const at = (text: string): number => Date.parse(`${text}Z`);

describe('slices of a time', () => {
  it('are days, with shorter ones at the ends', () => {
    const slices = slicesOf(at('2031-09-01T18:00'), at('2031-09-03T06:00'), 'day');
    expect(slices.map(({ title }) => title)).toEqual([
      '1 September 2031',
      '2 September 2031',
      '3 September 2031',
    ]);
    expect(slices[0]).toMatchObject({ from: at('2031-09-01T18:00'), until: at('2031-09-02T00:00') });
    expect(slices[2].until).toBe(at('2031-09-03T06:00'));
  });

  it('are weeks that begin on Monday (ISO 8601)', () => {
    // 1 January 1970 was a Thursday; 3 September 2031 is a Wednesday.
    expect(
      slicesOf(at('2031-09-03T00:00'), at('2031-09-10T00:00'), 'week').map(({ title }) => title),
    ).toEqual(['Week of 1 September 2031', 'Week of 8 September 2031']);
    expect(new Date(slicesOf(0, 9e8, 'week')[1].from).getUTCDay()).toBe(1);
  });

  it('are months of the calendar', () => {
    expect(
      slicesOf(at('2031-12-15T00:00'), at('2032-02-02T00:00'), 'month').map(({ title }) => title),
    ).toEqual(['December 2031', 'January 2032', 'February 2032']);
  });

  it('lie before and after an event', () => {
    const [from, until, event] = [at('2031-09-01T00:00'), at('2031-09-09T00:00'), at('2031-09-04T14:30')];
    expect(slicesOf(from, until, 'event', event).map(({ title }) => title)).toEqual([
      'Before 4 September 2031, 14:30',
      'From 4 September 2031, 14:30 on',
    ]);
    expect(slicesOf(from, until, 'event', until)).toEqual([]);
  });

  it('follow each other without a gap', () => {
    const time = fc.integer({ min: 0, max: 4e12 });
    const by = fc.constantFrom('day' as const, 'week' as const, 'month' as const);
    fc.assert(
      fc.property(time, fc.integer({ min: 1, max: 9e9 }), by, (from, length, way) => {
        const slices = slicesOf(from, from + length, way);
        expect([slices[0].from, slices.at(-1)!.until]).toEqual([from, from + length]);
        slices.slice(1).forEach((slice, i) => expect(slice.from).toBe(slices[i].until));
      }),
    );
  });
});
