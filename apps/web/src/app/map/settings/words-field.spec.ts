import { TestBed } from '@angular/core/testing';
import { host } from '../../../testing/dom';
import { WordsField } from './words-field';

describe('WordsField', () => {
  it('shows the usual words while there are no own ones, and tells what is written', async () => {
    const fixture = TestBed.createComponent(WordsField);
    fixture.componentRef.setInput('label', 'Name of 3');
    fixture.componentRef.setInput('usual', '3 · round ann');
    const written: string[] = [];
    fixture.componentInstance.written.subscribe((words) => written.push(words));
    await fixture.whenStable();
    const field = host(fixture).querySelector<HTMLInputElement>('[aria-label="Name of 3"]')!;
    expect([field.value, field.placeholder]).toEqual(['', '3 · round ann']);
    for (const words of ['  The harbour ', '   ']) {
      field.value = words;
      field.dispatchEvent(new Event('change'));
    }
    expect(written).toEqual(['The harbour', '']);
    fixture.componentRef.setInput('words', 'The quay');
    await fixture.whenStable();
    expect(field.value).toBe('The quay');
  });
});
