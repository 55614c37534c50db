import { Directive, ElementRef, inject, input } from '@angular/core';

/**
 * A button that cannot be pressed while its work goes on, but keeps the focus: a disabled one would lose it, and whoever works by keys
 * would begin at the top of the page again.
 */
@Directive({
  selector: 'button[ptBusy], input[type=file][ptBusy]',
  host: { '[attr.aria-disabled]': 'ptBusy() ? true : null' },
})
export class Busy {
  readonly ptBusy = input.required<boolean>();

  constructor() {
    const button = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    // Before the button's own listeners, and before a form is sent.
    const swallow = (event: Event): void => {
      if (!this.ptBusy()) return;
      event.preventDefault();
      event.stopImmediatePropagation();
    };
    button.addEventListener('click', swallow, { capture: true });
  }
}
