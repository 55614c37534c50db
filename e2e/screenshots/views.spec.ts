import { expect, test } from '@playwright/test';
import { expectForEverybody, listen, settled } from '../seen/everybody';
import { VIEWS } from './views';

for (const { name, show, theme = 'light' } of VIEWS)
  test.describe(name, () => {
    test.use({ colorScheme: theme });
    test('looks as it did, and can be read and worked by everybody', async ({ page }) => {
      const said = listen(page);
      await show(page);
      await settled(page);
      // A picture that has become another is accepted by npm run screenshots and a commit.
      await expect.soft(page).toHaveScreenshot(`${name}.png`);
      await expectForEverybody(page, said);
    });
  });
