import type { ComponentFixture } from '@angular/core/testing';

/** What a test sees of a component, and does to it. */
export const host = (fixture: ComponentFixture<unknown>): HTMLElement => fixture.nativeElement as HTMLElement;

export const text = (fixture: ComponentFixture<unknown>): string =>
  host(fixture).textContent.replace(/\s+/g, ' ');

/** The first button whose words begin so. */
export const button = (fixture: ComponentFixture<unknown>, name: string): HTMLButtonElement =>
  [...host(fixture).querySelectorAll('button')].find((b) => b.textContent.trim().startsWith(name))!;

/** Chooses the option of a value, or the only one whose words hold it. */
export const choose = (select: HTMLSelectElement, value: string): void => {
  const byWords = [...select.options].find((option) => option.text.includes(value));
  if (![...select.options].some((option) => option.value === value) && byWords) byWords.selected = true;
  else select.value = value;
  select.dispatchEvent(new Event('change'));
};

export const type = (input: HTMLInputElement | HTMLTextAreaElement, value: string): void => {
  input.value = value;
  input.dispatchEvent(new Event('input'));
};

/** What a screen reader says of an element beside its name: its tooltip. */
export const spoken = async (element: Element): Promise<string | undefined> => {
  await new Promise((done) => setTimeout(done));
  const ids = element.getAttribute('aria-describedby')?.split(' ') ?? [];
  return ids.map((id) => document.getElementById(id)?.textContent).join(' ');
};
