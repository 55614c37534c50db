import { test } from '@playwright/test';
import { expectForEverybody, listen, settled } from '../seen/everybody';
import { STATES } from '../seen/states';

// Each is a study of its own, so that they can be shared out.
test.describe.configure({ mode: 'parallel' });

for (const { name, show, says } of STATES)
  test(`${name}: can be read and worked by everybody`, async ({ page }) => {
    const said = listen(page, says);
    await show(page);
    await settled(page);
    await expectForEverybody(page, said);
  });
