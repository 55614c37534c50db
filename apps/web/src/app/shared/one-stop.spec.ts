import { Component } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { OneStop } from './one-stop';

@Component({
  imports: [OneStop],
  template: `
    <div #stop="ptOneStop" [ptOneStop]="5">
      @for (row of [0, 1, 2, 3, 4]; track row) {
        <p [attr.data-row]="row" [tabindex]="stop.reaches(row) ? 0 : -1">
          <button [tabindex]="stop.reaches(row) ? 0 : -1">press</button>
          <input />
        </p>
      }
    </div>
  `,
})
class Rows {}

describe('a list that is one stop', () => {
  async function list() {
    const fixture = TestBed.createComponent(Rows);
    document.body.append(fixture.nativeElement as HTMLElement);
    await fixture.whenStable();
    const rows = [...(fixture.nativeElement as HTMLElement).querySelectorAll('p')];
    const reached = (): number[] => rows.map((row) => row.tabIndex);
    const press = async (key: string, at: Element = document.activeElement!): Promise<void> => {
      at.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
      await fixture.whenStable();
    };
    return { rows, reached, press, fixture };
  }

  it('is entered at its first row, and gone through by arrows', async () => {
    const { rows, reached, press } = await list();
    expect(reached()).toEqual([0, -1, -1, -1, -1]);
    rows[0].focus();
    await press('ArrowDown');
    expect(document.activeElement).toBe(rows[1]);
    expect(reached()).toEqual([-1, 0, -1, -1, -1]);
    await press('End');
    expect(document.activeElement).toBe(rows[4]);
    await press('ArrowDown');
    expect(document.activeElement).toBe(rows[4]);
    await press('PageUp');
    expect(document.activeElement).toBe(rows[0]);
  });

  it('lets Tab come to what can be pressed in the row that is reached', async () => {
    const { rows, fixture } = await list();
    const button = (row: number): number => rows[row].querySelector('button')!.tabIndex;
    expect([button(0), button(2)]).toEqual([0, -1]);
    rows[2].querySelector('button')!.focus();
    await fixture.whenStable();
    expect([button(0), button(2)]).toEqual([-1, 0]);
  });

  it('leaves keys to fields', async () => {
    const { rows, press, reached } = await list();
    const field = rows[1].querySelector('input')!;
    field.focus();
    await press('ArrowDown', field);
    expect(document.activeElement).toBe(field);
    expect(reached()[1]).toBe(0);
  });
});
