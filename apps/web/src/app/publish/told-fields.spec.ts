import { TestBed } from '@angular/core/testing';
import { button, host, text, type } from '../../testing/dom';
import { ToldFields } from './told-fields';

describe('what is told of a figure', () => {
  it('is suggested, can be written otherwise and taken back', async () => {
    const fixture = TestBed.createComponent(ToldFields);
    fixture.componentRef.setInput('suggested', { short: 'A map.', long: 'It has groups.' });
    fixture.componentRef.setInput('own', null);
    await fixture.whenStable();
    host(fixture).querySelector<HTMLElement>('mat-expansion-panel-header')!.click();
    await fixture.whenStable();
    const fields = () => [...host(fixture).querySelectorAll('textarea')];
    expect(fields().map(({ value }) => value)).toEqual(['A map.', 'It has groups.']);
    expect(text(fixture)).not.toContain('As suggested');
    type(fields()[0], 'My map.');
    await fixture.whenStable();
    expect(fixture.componentInstance.own()).toEqual({ short: 'My map.', long: 'It has groups.' });
    button(fixture, 'As suggested').click();
    await fixture.whenStable();
    expect(fixture.componentInstance.own()).toBeNull();
    expect(fields()[0].value).toBe('A map.');
  });
});
