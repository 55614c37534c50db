import { expect, test } from '@playwright/test';
import { openFirstMap } from './steps';

test('several nodes are chosen by a line, placed, outlined and put in a category, and all is undone', async ({
  page,
}) => {
  test.setTimeout(180_000);
  await openFirstMap(page, 'By hand');
  await expect(page.getByRole('button', { name: /^Community / }).first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Stop here' })).toBeHidden({ timeout: 60_000 });
  const phrase = (text: string | RegExp) => page.locator('.caption button').filter({ hasText: text });
  const undo = page.getByRole('button', { name: 'Undo', exact: true });
  const box = (await page.locator('pt-map-canvas canvas').boundingBox())!;
  const at = (x: number, y: number) => [box.x + box.width * x, box.y + box.height * y] as const;

  await page.getByRole('button', { name: 'Choose', exact: true }).click();
  // From the edge, where no node is that would be moved instead.
  await page.mouse.move(...at(0.45, 0.02));
  await page.mouse.down();
  for (const [x, y] of [[0.7, 0.02], [0.7, 0.6], [0.45, 0.6]]) await page.mouse.move(...at(x, y), { steps: 5 }); // prettier-ignore
  await page.mouse.up();
  const pane = page.locator('pt-chosen-nodes');
  await expect(pane.getByRole('heading', { name: /accounts chosen/ })).toBeVisible();

  await pane.getByRole('button', { name: 'Wider' }).click();
  await expect(phrase(/moved by hand/)).toBeVisible();
  await pane.getByLabel('Title of the outline').fill('The middle');
  await pane.getByRole('button', { name: 'Outline them' }).click();
  await expect(phrase('1 choice of nodes')).toBeVisible();
  await pane.getByLabel('Category', { exact: true }).fill('Part');
  await pane.getByLabel('Value').fill('middle');
  await pane.getByRole('button', { name: 'Set', exact: true }).click();
  await expect(pane.getByRole('status')).toContainText('was set to “middle” by hand');

  // A thick line drawn by hand stays on the map, with a title.
  await phrase('1 choice of nodes').click();
  await page.getByRole('button', { name: 'Draw one by hand' }).click();
  await page.mouse.move(...at(0.4, 0.3));
  await page.mouse.down();
  for (const [x, y] of [[0.5, 0.35], [0.6, 0.3]]) await page.mouse.move(...at(x, y), { steps: 6 }); // prettier-ignore
  await page.mouse.up();
  await phrase('1 choice of nodes and 1 line drawn by hand').click();
  await page.getByLabel('Title of a drawn line').fill('Along the quay');
  // The title is taken over by the press, and the settings grow: the button moves before it is let go.
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).hover();
  await page.mouse.down();
  await page.waitForTimeout(200);
  await page.mouse.up();
  await expect(page.getByRole('dialog')).toBeHidden();
  await phrase('1 choice of nodes and 1 line drawn by hand').click();
  await expect(page.getByLabel('Title of a drawn line')).toHaveValue('Along the quay');
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();

  // An arrangement is taken back like any other change, and so is what hands did before it.
  await phrase('by attraction').click();
  const settings = page.getByRole('dialog');
  await settings.getByLabel('Arrangement', { exact: true }).selectOption('circle');
  await settings.getByRole('button', { name: 'Arrange', exact: true }).click();
  await expect(phrase(/circle/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Stop here' })).toBeHidden();
  await undo.click();
  await expect(phrase(/by attraction.*moved by hand/)).toBeVisible();
  await page.keyboard.press('Escape');
  // The last change may be undone between the look at the button and the click on it.
  while (await undo.isEnabled()) await undo.click({ timeout: 3000 }).catch(() => undefined);
  await expect(undo).toBeDisabled();
  await expect(phrase(/moved by hand/)).toBeHidden();
  await expect(page.getByRole('button', { name: 'Redo', exact: true })).toBeEnabled();
});

test('a window of days is played under the map, and two networks are looked at side by side', async ({
  page,
}) => {
  test.setTimeout(180_000);
  await openFirstMap(page, 'In time');
  await page.getByRole('button', { name: 'Time', exact: true }).click();
  const strip = page.locator('pt-period-strip');
  await expect(strip.getByRole('status')).toContainText('the whole time');
  await strip.getByRole('button', { name: 'Play' }).click();
  await expect(strip.getByRole('status')).not.toContainText('the whole time');
  const ties = page.getByRole('tab', { name: /^Ties/ });
  await expect(ties).not.toHaveText('Ties 6,799');
  await page.waitForTimeout(1200);
  await strip.getByRole('button', { name: 'Stop' }).click();
  await expect(page.locator('.caption button').filter({ hasText: /to \d+ \w+ 2026/ })).toBeVisible();
  await strip.getByRole('button', { name: 'Whole time' }).click();
  await expect(ties).toHaveText('Ties 6,799');
  await strip.getByRole('button', { name: 'Close' }).click();

  // A second network, of reposts alone.
  await page.getByRole('link', { name: /^Weave/ }).click();
  for (const verb of ['replies to', 'quotes', 'mentions'])
    await page.getByRole('button', { name: verb, exact: true }).click();
  await page.getByRole('button', { name: 'Weave and open the map' }).click();
  await expect(page.locator('.caption button').filter({ hasText: /^reposts$/ })).toBeVisible({
    timeout: 60_000,
  });
  await page.getByRole('button', { name: 'Beside' }).click();
  const beside = page.locator('pt-beside-map');
  await expect(beside.locator('.caption')).toContainText('of its nodes are on the first map too');
  await page.getByPlaceholder('Find an account').fill('lamp_planner');
  await page.getByPlaceholder('Find an account').press('Enter');
  await expect(page.locator('pt-reading-pane h2')).toHaveText('Lamp Planner');
});

test('nodes are merged and taken out, one is added, and the changed network says so', async ({ page }) => {
  test.setTimeout(180_000);
  await openFirstMap(page, 'Changed');
  await expect(page.getByRole('button', { name: 'Stop here' })).toBeHidden({ timeout: 60_000 });
  const panel = page.locator('pt-change-panel');
  const find = async (name: string) => {
    await page.getByPlaceholder(/^Find/).fill(name);
    await page.keyboard.press('Enter');
  };
  await find('lamp_line');
  await page.locator('pt-reading-pane').getByRole('button', { name: 'Take out', exact: true }).click();
  await expect(panel.getByText('Take out lamp_line')).toBeVisible();
  await find('nightbus14');
  await panel.getByLabel('Name of a new node').fill('Harbour office');
  await panel.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(panel.getByText('Tie Harbour office → nightbus14, weight 1')).toBeVisible();
  await panel.getByLabel('Why, for the logbook').fill('The office has no account.');
  await panel.getByRole('button', { name: 'Make the changed network' }).click();
  await expect(page.locator('.caption')).toContainText('Changed by hand: 1 node taken out with', {
    timeout: 60_000,
  });
  await expect(panel).toBeHidden();
  await find('Harbour office');
  await expect(page.locator('pt-reading-pane')).toContainText('Ties out 1');
  await page
    .locator('pt-reading-pane')
    .getByRole('tab', { name: /^Ties out/ })
    .click();
  await page.locator('pt-reading-pane .ties .count').first().click();
  await expect(page.locator('pt-reading-pane')).toContainText('A tie of weight 1, added by hand.');
  // A column of one's own is filled in in the table.
  await page.getByRole('tab', { name: /^Accounts/ }).click();
  await page.getByRole('button', { name: 'New column' }).click();
  await page.getByLabel('Name of the column').fill('Role');
  await page.getByRole('button', { name: 'Make it empty' }).click();
  const cell = page.locator('[col-id="Role"][role=gridcell]').first();
  await cell.dblclick();
  await page.keyboard.type('keeper');
  await page.keyboard.press('Enter');
  await expect(cell).toHaveText('keeper');
  await page.goto(page.url().replace(/map.*/, 'logbook'));
  await expect(page.getByText('“Role” of 1 chosen node was set to “keeper” by hand.').first()).toBeVisible();
  await expect(page.getByText('Why: The office has no account.').first()).toBeVisible();
});
