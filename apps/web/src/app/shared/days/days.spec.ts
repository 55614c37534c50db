import { TestBed } from '@angular/core/testing';
import { dayOf, endOf, isDayFirst, readDay, startOf } from './days-adapter';
import { DayRangeField, type DayRange } from './day-range';

const HALF = 43_200_000;

describe('a day', () => {
  it('is read as people write it, in the order of their language where only numbers stand', () => {
    const march = new Date(2026, 2, 1);
    for (const typed of ['2026-03-01', '1 March 2026', 'March 1, 2026', '1. März 2026', '1 mars 2026'])
      expect(readDay(typed, true)).toEqual(march);
    expect(readDay('1/3/2026', true)).toEqual(march);
    expect(readDay('3/1/2026', false)).toEqual(march);
    for (const typed of ['', 'yesterday', '31 February 2026', '2026-13-01', '99/99/2026'])
      expect(readDay(typed, true)).toBeNull();
  });

  it('stands in the order of the reader’s language', () => {
    // Unicode CLDR, as the engine ships it.
    expect(isDayFirst(['en-GB'])).toBe(true);
    expect(isDayFirst(['de'])).toBe(true);
    expect(isDayFirst(['en-US'])).toBe(false);
    expect(isDayFirst(['ja'])).toBe(false);
  });

  it('is one of UTC, whatever the zone of the reader', () => {
    const day = dayOf(Date.UTC(2026, 2, 29) + HALF);
    expect([day.getFullYear(), day.getMonth(), day.getDate(), day.getHours()]).toEqual([2026, 2, 29, 0]);
    expect(startOf(day)).toBe(Date.UTC(2026, 2, 29));
    expect(endOf(day)).toBe(Date.UTC(2026, 2, 30));
    // The years before 100 are not those of the last century, and leap days are days.
    expect(endOf(dayOf(Date.UTC(2028, 1, 29)))).toBe(Date.UTC(2028, 2, 1));
  });
});

describe('DayRangeField', () => {
  async function field(range: DayRange) {
    const fixture = TestBed.createComponent(DayRangeField);
    const heard: DayRange[] = [];
    fixture.componentInstance.changed.subscribe((to) => heard.push(to));
    fixture.componentRef.setInput('range', range);
    await fixture.whenStable();
    const element = fixture.nativeElement as HTMLElement;
    const [first, last] = [...element.querySelectorAll('input')];
    const type = async (input: HTMLInputElement, text: string): Promise<void> => {
      input.value = text;
      input.dispatchEvent(new Event('input'));
      input.dispatchEvent(new Event('change'));
      await fixture.whenStable();
    };
    return { element, first, last, heard, type };
  }

  it('writes days in words, the last one being the one before the end', async () => {
    const { first, last } = await field({ from: Date.UTC(2026, 2, 1), until: Date.UTC(2026, 3, 1) });
    expect([first.value, last.value]).toEqual(['1 March 2026', '31 March 2026']);
  });

  it('tells the moments at which the days that are typed begin and end, and none where a field is emptied', async () => {
    const range = { from: Date.UTC(2026, 2, 1), until: null };
    const { first, last, heard, type } = await field(range);
    await type(last, '2026-03-07');
    await type(first, '');
    expect(heard).toEqual([
      { ...range, until: Date.UTC(2026, 2, 8) },
      { ...range, from: null },
    ]);
  });

  it('says what is no day, and keeps what was there', async () => {
    const { element, first, heard, type } = await field({ from: Date.UTC(2026, 2, 1), until: null });
    await type(first, 'the day after');
    expect(element.querySelector('[role=alert]')?.textContent).toContain('“the day after” is no day');
    expect(heard).toEqual([]);
    await type(first, '2 March 2026');
    expect(element.querySelector('[role=alert]')).toBeNull();
    expect(heard).toEqual([{ from: Date.UTC(2026, 2, 2), until: null }]);
  });
});
