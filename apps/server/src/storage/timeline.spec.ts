import type { Timeline } from '@pebble/contract';
import { startedApplication } from '../testing/application';

/** Posts at some moments. */
const posts = (times: readonly string[]): string =>
  ['id,author,text,date', ...times.map((time, i) => `p${i},ada,hello,${time}`)].join('\n');
const days = (count: number, from: number): string[] =>
  Array.from({ length: count }, (_, i) => new Date(from + i * 86_400_000).toISOString());

describe('the time chart', () => {
  const app = startedApplication();

  const lineOf = async (times: readonly string[]): Promise<Timeline> => {
    app.study = (
      (await app.api.post('/api/v1/studies').send({ name: 'Times' }).expect(201)).body as { id: string }
    ).id;
    await app.take('times.csv', posts(times));
    return app.get<Timeline>('timeline', { by: 'kind' });
  };
  const sum = (counts: readonly number[]): number => counts.reduce((a, b) => a + b, 0);

  it('sets a date of the year 9999 aside, and says so', async () => {
    const line = await lineOf([...days(40, Date.UTC(2026, 2, 1)), '9999-12-31T00:00:00Z']);
    expect([line.unit, line.starts.length, sum(line.counts)]).toEqual(['day', 40, 40]);
    expect(line.setAside).toEqual({
      messages: 1,
      from: Date.UTC(2026, 2, 1),
      until: Date.UTC(9999, 11, 31),
    });
  });

  it.each([
    ['hour', 3, 3600_000 * 24],
    ['day', 390, 86_400_000],
    ['week', 1000, 86_400_000],
    ['month', 5000, 86_400_000],
    ['year', 20_000, 86_400_000],
  ])(
    'has bars of one %s for %i days, some hundred at most, which hold every message once',
    async (unit, count) => {
      const line = await lineOf(days(count, Date.UTC(1960, 4, 20, 13)));
      expect(line.unit).toBe(unit);
      expect(line.starts.length).toBeLessThanOrEqual(400);
      expect(sum(line.counts)).toBe(count);
      expect(sum(line.parts.flatMap((part) => part.counts))).toBe(count);
      expect(line.setAside).toBeNull();
      expect(line.end).toBeGreaterThan(Date.UTC(1960, 4, 20, 13) + (count - 1) * 86_400_000);
      if (unit === 'month') expect(new Date(line.starts[0]).toISOString()).toBe('1960-05-01T00:00:00.000Z');
    },
    60_000,
  );

  it('has few bars also where nothing is near to anything', async () => {
    const line = await lineOf(['0800-01-01T00:00:00Z', '2026-01-01T00:00:00Z', '9000-01-01T00:00:00Z']);
    expect(line.starts.length).toBeLessThanOrEqual(400);
    expect(sum(line.counts)).toBe(3);
  });
});
