import type { Page } from '@playwright/test';

/** Writes one day and time wherever the page says that something was done today or yesterday: a picture is the same on any day. */
export function onSameDay(page: Page): Promise<void> {
  return page.evaluate(() => {
    const forms = [0, 1].flatMap((ago) => {
      const then = new Date(Date.now() - ago * 86_400_000);
      return (['long', 'short'] as const).map((month) =>
        then.toLocaleDateString('en-GB', { day: 'numeric', month, timeZone: 'UTC' }),
      );
    });
    const dated = new RegExp(
      `\\b(?:${forms.join('|')})\\b(?: \\d{4})?(?:(?: at|,) \\d\\d:\\d\\d(?::\\d\\d)?)?`,
      'g',
    );
    const texts = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let text = texts.nextNode(); text; text = texts.nextNode())
      text.textContent = (text.textContent ?? '').replace(dated, (found) =>
        found
          .replace(/^\d+ (\w+)/, (_, month: string) => (month.length > 3 ? '30 November' : '30 Nov'))
          .replace(/\d{4}/, '2026')
          .replace(/\d\d:\d\d(?=:|$)/, '12:00')
          .replace(/:\d\d$/, (end) => (/:\d\d:\d\d$/.test(found) ? ':00' : end)),
      );
  });
}
