import { TestBed } from '@angular/core/testing';
import { ForGood } from './for-good';

describe('a button for what cannot be taken back', () => {
  const made = () => {
    const fixture = TestBed.createComponent(ForGood);
    fixture.componentRef.setInput('act', 'Remove for good');
    fixture.componentRef.setInput('question', 'Remove it?');
    const done = jest.fn();
    fixture.componentInstance.confirmed.subscribe(done);
    fixture.detectChanges();
    const host = fixture.nativeElement as HTMLElement;
    const press = (name: string): void => {
      [...host.querySelectorAll('button')].find(({ textContent }) => textContent?.trim() === name)!.click();
      fixture.detectChanges();
    };
    return { fixture, host, press, done };
  };

  it('asks first, and is done by the second press alone', () => {
    const { host, press, done } = made();
    press('Remove for good');
    expect(host.textContent).toContain('Remove it?');
    expect(done).not.toHaveBeenCalled();
    press('Keep');
    expect(host.textContent).not.toContain('Remove it?');
    press('Remove for good');
    press('Remove for good');
    expect(done).toHaveBeenCalledTimes(1);
  });

  it('is left by Escape', () => {
    const { fixture, host, press, done } = made();
    press('Remove for good');
    host.querySelector('.asks')!.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape' }));
    fixture.detectChanges();
    expect(host.textContent).not.toContain('Remove it?');
    expect(done).not.toHaveBeenCalled();
  });
});
