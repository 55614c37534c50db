import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';

/** Violations of WCAG 2.2 A and AA that axe-core finds, each with the first element that has it. */
export async function barriers(page: Page, { colours = true } = {}): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
    // A library's own; its rows are reached by its keys.
    .exclude('ag-grid-angular')
    // Lines of the legend on the map are as high as letters; the panel “Legend” has the same in full size.
    .exclude('pt-legend-spots')
    // Where the system sets the colours, what the page says of them is not what is seen.
    .disableRules(colours ? [] : ['color-contrast'])
    .analyze();
  return violations.map(
    ({ id, nodes }) => `${id} (${nodes.length}): ${nodes[0]?.target.join(' ')} ${reason(nodes[0]?.any)}`,
  );
}

const reason = (any: readonly { message: string }[] = []): string => any.at(0)?.message ?? '';

/** What of the layout keeps somebody from reading or pressing: each with the element. */
export function layoutFaults(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const faults: string[] = [];
    const words = (element: Element): string =>
      `${element.tagName.toLowerCase()} “${(element.getAttribute('aria-label') ?? element.textContent ?? '').trim().slice(0, 40)}”`;
    const isSeen = (element: Element): boolean =>
      element.checkVisibility({ opacityProperty: true, visibilityProperty: true });
    const { clientWidth, scrollWidth } = document.documentElement;
    if (scrollWidth > clientWidth) faults.push(`the page is ${scrollWidth - clientWidth} px too wide`);

    // The middle of each control belongs to it, unless it has to be scrolled to.
    for (const control of document.querySelectorAll('button, a[href], input, select, textarea')) {
      if (!isSeen(control) || control.closest('.visually-hidden, [hidden], ag-grid-angular')) continue;
      const { left, right, top, bottom, width, height } = control.getBoundingClientRect();
      if (width < 2 || height < 2) continue;
      const [x, y] = [(left + right) / 2, (top + bottom) / 2];
      let room = control.parentElement;
      let isScrolledAway = x < 0 || y < 0 || x >= innerWidth || y >= innerHeight;
      for (; room && !isScrolledAway; room = room.parentElement) {
        const { overflowX, overflowY } = getComputedStyle(room);
        if (overflowX === 'visible' && overflowY === 'visible') continue;
        const box = room.getBoundingClientRect();
        isScrolledAway = x < box.left || x > box.right || y < box.top || y > box.bottom;
      }
      if (isScrolledAway) continue;
      const at = document.elementFromPoint(x, y);
      const label = control.closest('label, mat-checkbox, mat-button-toggle, mat-form-field, mat-slider');
      if (at && !control.contains(at) && !at.contains(control) && !label?.contains(at))
        faults.push(`${words(control)} lies below ${words(at)}`);
    }

    // A chart or map without ink.
    for (const canvas of document.querySelectorAll('canvas')) {
      if (!isSeen(canvas)) continue;
      const { width, height } = canvas.getBoundingClientRect();
      if (width < 20 || height < 20) faults.push(`a canvas of ${width.toFixed(0)} x ${height.toFixed(0)} px`);
      const pixels = canvas.getContext('2d')?.getImageData(0, 0, canvas.width, canvas.height).data;
      if (!pixels) continue;
      const colours = new Set<number>();
      const whole = new Uint32Array(pixels.buffer);
      for (let i = 0; i < whole.length && colours.size < 3; i += 7) colours.add(whole[i] ?? 0);
      if (colours.size < 2) faults.push(`an empty canvas in ${canvas.parentElement?.tagName.toLowerCase()}`);
    }

    // Text that is cut, and cannot be read anywhere.
    for (const element of document.querySelectorAll('*')) {
      const style = getComputedStyle(element);
      if (style.overflowX === 'visible' || style.overflowX === 'auto' || style.overflowX === 'scroll')
        continue;
      const hasText = [...element.childNodes].some(
        (node) => node.nodeType === Node.TEXT_NODE && node.textContent?.trim(),
      );
      if (!hasText || !isSeen(element) || element.closest('.visually-hidden, ag-grid-angular, [title]'))
        continue;
      if (element.closest('.mat-mdc-tooltip-trigger, [aria-describedby]')) continue;
      if (element.scrollWidth > element.clientWidth + 1) faults.push(`cut: ${words(element)}`);
    }
    for (const select of document.querySelectorAll('select')) {
      if (!isSeen(select) || select.matches('.mat-mdc-tooltip-trigger, [title]')) continue;
      const pen = document.createElement('canvas').getContext('2d')!;
      const style = getComputedStyle(select);
      pen.font = `${style.fontSize} ${style.fontFamily}`;
      const text = select.selectedOptions[0]?.text ?? '';
      const room = select.clientWidth - parseFloat(style.paddingLeft) - parseFloat(style.paddingRight);
      if (pen.measureText(text).width > room + 2) faults.push(`cut: ${words(select)} shows “${text}”`);
    }
    return faults;
  });
}
