import { columnOf, momentMarks } from './moment-marks';

const DAY = 86_400_000;
const moment = (time: number, name = 'Vote') => ({ id: 1, time, name });

describe('moments on an axis of time', () => {
  it('stand in the column that they fall into, and in none outside', () => {
    const starts = [0, DAY, 5 * DAY];
    expect(columnOf(0, starts, 6 * DAY)).toBe(0);
    expect(columnOf(DAY - 1, starts, 6 * DAY)).toBe(0);
    expect(columnOf(3 * DAY, starts, 6 * DAY)).toBe(1);
    expect(columnOf(6 * DAY - 1, starts, 6 * DAY)).toBe(2);
    expect(columnOf(-1, starts, 6 * DAY)).toBeNull();
    expect(columnOf(6 * DAY, starts, 6 * DAY)).toBeNull();
    expect(columnOf(0, [], 1)).toBeNull();
  });

  it('are lines with their names; without any there is nothing to draw', () => {
    const marks = momentMarks([moment(DAY), moment(-5)], [0, DAY], 2 * DAY, 'red');
    expect(marks.markLine).toMatchObject({ data: [{ xAxis: 1, name: 'Vote' }] });
    expect(momentMarks([moment(-5)], [0, DAY], 2 * DAY, 'red')).toEqual({});
  });
});
