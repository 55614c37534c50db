import { expect, test } from '@playwright/test';
import { expectForEverybody, listen, settled } from '../seen/everybody';
import { onSameDay } from './sameDay';
import { VIEWS } from './views';

for (const { name, show, theme = 'light' } of VIEWS)
  test.describe(name, () => {
    test.use({ colorScheme: theme });
    test('looks as it did, and can be read and worked by everybody', async ({ page }) => {
      const said = listen(page);
      await show(page);
      await settled(page);
      await onSameDay(page);
      // A picture that has become another is accepted by npm run screenshots and a commit.
      // On a machine that has much to do, what is to be seen comes later.
      await expect
        .soft(() => expect(page).toHaveScreenshot(`${name}.png`))
        .toPass({ timeout: 30_000, intervals: [3_000, 6_000] });
      await expectForEverybody(page, said);
    });
  });
