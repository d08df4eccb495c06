import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { expectAccessible, follow, giveFile, openDemo, planned, test } from './desk';

/** A worksheet for the one system of a stair. */
async function makeOne(page: Page, system: string): Promise<void> {
  await page.goto(`/stair?at=${system}`);
  await page.locator('.onward').getByRole('button', { name: 'Take this way' }).click();
  await page.getByRole('button', { name: 'Make its worksheet' }).click();
  await expect(page.locator('[data-worksheet]')).toBeVisible();
}

const here = (page: Page) => page.locator('[data-open-item]');
const stateOf = (page: Page, id: string) => page.locator(`[data-item="${id}"]`);

/** Passes item after item until a hop is next. */
async function passUntilHop(page: Page): Promise<void> {
  for (let i = 0; i < 40; i++) {
    const current = page.locator('.item.here');
    if ((await current.getAttribute('data-kind')) === 'hop') return;
    const id = (await current.getAttribute('data-item')) ?? '';
    await here(page).getByRole('button', { name: 'Passed', exact: true }).click();
    await expect(stateOf(page, id)).toHaveAttribute('data-state', 'passed');
  }
}

test(
  'one worksheet from its stair to its end: gates, a hop that fails in the middle, barred, and the plan made anew',
  { tag: '@quick' },
  async ({ page, context }) => {
    await openDemo(page);
    await planned(page);
    await makeOne(page, 'west-04');
    await expect(page.locator('[data-standing]')).toContainText('0 of');
    await expectAccessible(page);
    // The hop is shut as long as anything before it is open.
    const hop = page.locator('[data-kind=hop]').first();
    await hop.getByRole('button').click();
    await expect(here(page).locator('[data-shut]')).toContainText('the back-up is not finished');
    await expect(here(page).getByRole('button', { name: 'Start' })).toBeDisabled();
    await page.reload();
    await passUntilHop(page);
    await expect(here(page).locator('[data-shut]')).toHaveCount(0);
    await page.keyboard.press('s');
    await expect(here(page).locator('[data-running]')).toContainText('running for 0 min');
    await page.keyboard.press('p');
    await expect(hop).toHaveAttribute('data-state', 'passed');
    // What is installed has moved on, and the history says from where.
    await passUntilHop(page);
    await follow(page, '/estate/system?at=west-04');
    await expect(page.locator('[data-history]')).toContainText('worksheet: west-04 to 4');
    await follow(page, '/worksheet');
    await page.locator('[data-worksheets]').getByRole('link', { name: 'west-04' }).click();
    await expect(page.locator('[data-drift]')).toHaveCount(0);
    // The network goes; what is entered is kept all the same.
    await context.setOffline(true);
    const second = page.locator('[data-kind=hop]').nth(1);
    await here(page).getByLabel('Note').fill('the installer stopped at 60 %');
    await here(page).getByRole('button', { name: 'Failed', exact: true }).click();
    await expect(second).toHaveAttribute('data-state', 'failed');
    await context.setOffline(false);
    // Leaving waits for what is not kept yet.
    await page.goto(page.url());
    await expect(second).toHaveAttribute('data-state', 'failed');
    await expect(second).toContainText('the installer stopped at 60 %');
    const failed = page.locator('[data-failed]');
    await failed.getByRole('button', { name: 'Bar it for this system' }).click();
    await expect(failed.locator('[data-anew]')).toContainText('a fresh install of 6');
    // From where it stands now the list goes on.
    await failed.getByRole('button', { name: 'Make its worksheet anew' }).click();
    await expect(page.locator('[data-kind=hop]')).toHaveCount(1);
    await expect(page.locator('[data-kind=hop]')).toContainText('west-04 to 6');
    await passUntilHop(page);
    await here(page).getByRole('button', { name: 'Start', exact: true }).click();
    await here(page).getByRole('button', { name: 'Passed', exact: true }).click();
    for (let i = 0; i < 12 && (await here(page).count()) > 0; i++) {
      const id = (await page.locator('.item.here').getAttribute('data-item')) ?? '';
      await here(page).getByRole('button', { name: 'Passed', exact: true }).click();
      await expect(stateOf(page, id)).toHaveAttribute('data-state', 'passed');
    }
    await expect(page.getByRole('heading', { name: 'All of it is done' })).toBeVisible();
    await follow(page, '/estate/decisions');
    await expect(page.locator('body')).toContainText('does not go this way again');
  }
);

test('a gate is gone through by a decision with a reason; a warning and what is not needed want a note; evidence by its hash', async ({
  page
}) => {
  await openDemo(page);
  await planned(page);
  await makeOne(page, 'door-market');
  await page.locator('[data-kind=hop] button').first().click();
  const shut = here(page).locator('[data-shut]');
  await expect(shut.getByRole('button', { name: 'Go through: back-up' })).toBeDisabled();
  const gates = await shut.getByRole('button', { name: /^Go through/ }).count();
  expect(gates).toBeGreaterThan(1);
  for (let i = gates; i > 0; i--) {
    await shut.getByLabel('Why it may be gone through').fill('a copy was made at noon');
    await shut
      .getByRole('button', { name: /^Go through/ })
      .first()
      .click();
    await expect(shut.getByRole('button', { name: /^Go through/ })).toHaveCount(i - 1);
  }
  await expect(page.locator('[data-gate]').first()).toContainText('gone through by decision of tester');
  await expect(here(page).getByRole('button', { name: 'With a warning' })).toBeDisabled();
  await here(page).getByLabel('Note').fill('the bell rang twice');
  // What is typed and not entered yet is there again.
  await page.locator('[data-kind=prove] button').click();
  await expect(here(page).getByLabel('Note')).toHaveValue('');
  await page.locator('[data-kind=hop] button').first().click();
  await expect(here(page).getByLabel('Note')).toHaveValue('the bell rang twice');
  await here(page)
    .getByLabel(/^Minutes it took/)
    .fill('33');
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'photo.txt', mimeType: 'text/plain', buffer: Buffer.from('abc') });
  await expect(here(page)).toContainText('photo.txt ba7816bf8f01');
  await here(page).getByRole('button', { name: 'With a warning' }).click();
  const hop = page.locator('[data-kind=hop]').first();
  await expect(hop).toHaveAttribute('data-state', 'passed with a warning');
  await expect(hop).toContainText('33 min: the bell rang twice');
  const file = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Take out as Markdown' }).click();
  const text = readFileSync(await (await file).path(), 'utf8');
  expect(text).toContain('passed with a warning');
  expect(text).toContain('- [ ] Back up, finished and dated');
});

test('two people work on one worksheet; their halves are joined without loss', async ({ page }) => {
  await openDemo(page);
  await planned(page);
  await makeOne(page, 'west-04');
  const takeOut = async (): Promise<string> => {
    await page.goto('/estate/workspaces');
    const file = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Take out as a file' }).click();
    return readFileSync(await (await file).path(), 'utf8');
  };
  const empty = await takeOut();
  const workspace = JSON.parse(empty) as {
    worksheets: { items: { id: string; kind: string }[]; entries: unknown[] }[];
  };
  const [sheet] = workspace.worksheets;
  const item = sheet?.items.find((i) => i.kind === 'prove')?.id ?? '';
  sheet?.entries.push({ id: 'theirs', item, at: '2031-03-10T20:00:00Z', state: 'passed', who: 'colleague' });
  await page.goto('/worksheet');
  await page.locator('[data-worksheets]').getByRole('link', { name: 'west-04' }).click();
  await here(page).getByRole('button', { name: 'Passed', exact: true }).click();
  await expect(page.locator('[data-standing]')).toContainText('1 of');
  await page.goto('/import');
  await giveFile(page, 'theirs.json', JSON.stringify(workspace));
  await page.getByRole('button', { name: 'Join it with what is here' }).click();
  await page.getByRole('button', { name: 'Join them' }).click();
  await expect(page.getByText('Joined with theirs.json')).toBeVisible();
  await page.goto('/worksheet');
  await page.locator('[data-worksheets]').getByRole('link', { name: 'west-04' }).click();
  await expect(page.locator('[data-standing]')).toContainText('2 of');
  await expect(page.locator('[data-kind=prove]')).toContainText('passed, 20:00 UTC, colleague');
});

test('with nothing, with no worksheet, and on a phone', async ({ page }) => {
  await page.goto('/worksheet');
  await expect(page.getByRole('heading', { name: 'Nothing is on the desk yet' })).toBeVisible();
  await openDemo(page);
  await planned(page);
  await page.goto('/worksheet');
  await expect(page.getByRole('heading', { name: 'No worksheets yet' })).toBeVisible();
  await makeOne(page, 'shelf-north');
  await page.setViewportSize({ width: 390, height: 800 });
  await page.goto('/worksheet');
  const wide = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(wide).toBeLessThanOrEqual(390);
});

test('one list for a situation: a column a system, an item passed on all at once, one undone step', async ({
  page
}) => {
  await openDemo(page);
  await planned(page);
  await page.goto('/stair?at=draw-01');
  await page.locator('.onward').getByRole('button', { name: 'Take this way' }).click();
  await page.getByRole('button', { name: 'Make 9 worksheets' }).click();
  await page.locator('[data-worksheets]').getByRole('link', { name: 'draw-02' }).click();
  await page.getByRole('link', { name: 'Beside the 8 others alike' }).click();
  const table = page.locator('[data-side-by-side]');
  await expect(table.locator('thead th')).toHaveCount(11);
  await expectAccessible(page);
  const passed = table.locator('[data-state="passed"]');
  await table.getByRole('button', { name: /^Passed on all 9: Back up/ }).click();
  await expect(passed).toHaveCount(9);
  // What comes behind the hop is not done before it.
  await expect(table.locator('tr', { hasText: 'Load anew' }).first().getByText(/^all/)).toHaveCount(0);
  // One system goes its own way.
  await table.getByRole('button', { name: /^draw-05: Look that the back-up/ }).click();
  await expect(page.locator('h1').first()).toContainText('draw-05');
  await here(page).getByRole('button', { name: 'Failed', exact: true }).click();
  await expect(table.locator('[data-state="failed"]')).toHaveCount(1);
  await table.getByRole('button', { name: /^Passed on all 8: Look that/ }).click();
  await expect(passed).toHaveCount(17);
  await page.keyboard.press('Control+z');
  await expect(passed).toHaveCount(9);
  await page.getByRole('link', { name: 'This one alone' }).click();
  await expect(page.locator('.ladder')).toBeVisible();
});
