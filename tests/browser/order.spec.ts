import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { expectAccessible, giveFile, openDemo, planned, test } from './desk';

const drawing = (page: Page) => page.getByRole('group', { name: 'The order, along the days' });

/** Every step as the drawing has it and as the table has it. */
async function openOrder(page: Page): Promise<void> {
  await page.goto('/order');
  await expect(page.getByRole('heading', { level: 1, name: /waves?, / })).toBeVisible();
}

test('the order of what hangs on each other: drawn, listed, explained, taken out', async ({ page }) => {
  await openDemo(page);
  await planned(page);
  await openOrder(page);
  await expect(page.locator('[data-total]')).toContainText('get to their goals');
  // The drawing read back equals the list: as many waves a component, on the same days.
  const marks = await drawing(page)
    .locator('a[data-wave]')
    .evaluateAll((all) => all.map((a) => `${a.getAttribute('href')} ${a.getAttribute('data-first')}`));
  const rows = await page.locator('[data-waves] tbody tr').count();
  expect(new Set(marks.map((m) => m.split(' ')[0])).size).toBeGreaterThan(10);
  expect(rows).toBeGreaterThanOrEqual(marks.length);
  const both = page.locator('[data-waves] tbody tr', { hasText: 'at once' });
  await expect(both).toHaveCount(2);
  await expect(both.first()).toContainText('depot-ledger: 3.7 to 4.0');
  await both.first().getByRole('link').click();
  const aside = page.locator('[data-open-wave]');
  await expect(aside).toContainText('At the same minute');
  await expect(aside).toContainText('Windlass Ledger 4.0 does not fit Windlass content bundle 31');
  await expect(page.locator('[data-conflict]', { hasText: 'host-a-01' })).toContainText('host-a-04');
  await expect(page.locator('[data-stuck]', { hasText: 'hub' }).first()).toContainText(
    'has no way of its own'
  );
  await expect(page.locator('[data-standing]')).toContainText('depot-watch on 8.6');
  await expectAccessible(page);
  const sheet = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Take out as a run sheet' }).click();
  const text = readFileSync(await (await sheet).path(), 'utf8');
  expect(text).toContain('- [ ] depot-hub: 8.50 to 9');
  expect(text).toContain('Not before wave 1 has gone well');
  const csv = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Take out as CSV' }).click();
  expect(
    readFileSync(await (await csv).path(), 'utf8')
      .trim()
      .split('\n')
  ).toHaveLength(rows + 1);
});

test('from a stair to the wave in which it moves, and its blocks in a calendar', async ({ page }) => {
  await openDemo(page);
  await planned(page);
  await page.goto('/stair?at=depot-ledger');
  await page.locator('[data-needs-first]').getByRole('link', { name: 'In what order' }).click();
  await expect(page.locator('[data-open-wave="3"]')).toContainText('depot-ledger: 3.7 to 4.0');
  await page.goto('/stair?at=depot-ledger');
  await expect(page.locator('[data-in-order=reached]')).toContainText('Proven in the order: wave 3 of 3');
  await page.goto('/estate');
  await expect(page.locator('[data-case=depot-content] [data-cell=deadline]')).toContainText(
    'in the order, depot-hub first'
  );
  await page.goto('/order?of=depot-ledger');
  await expect(page.locator('[data-open-wave="3"]')).toBeVisible();
  const file = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Take out as a calendar file' }).click();
  const text = readFileSync(await (await file).path(), 'utf8').replace(/\r?\n /g, '');
  expect(text).toContain('SUMMARY:depot-ledger: 3.7 to 4.0');
  expect(text.match(/BEGIN:VEVENT/g)?.length).toBe(await page.locator('[data-waves] tbody tr').count());
  // What moves in a wave goes on with its worksheets.
  await page.getByRole('button', { name: 'Make the worksheets of this wave' }).click();
  await expect(page.locator('[data-worksheets="To come"] tbody tr')).toHaveCount(2);
  await expect(page.locator('[data-worksheets]')).toContainText('12 Mar 2031');
});

test('by keyboard alone: from wave to wave along the drawing, and to the stair of what moves in it', async ({
  page
}) => {
  await openDemo(page);
  await planned(page);
  await openOrder(page);
  const first = drawing(page).locator('a[data-wave]').first();
  await first.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-open-wave]')).toBeVisible();
  await expect(page).toHaveURL(/\/order\?at=/);
  await page.locator('[data-open-wave] li a').first().focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/stair\?at=/);
});

test('a wave tried on another night by key and by hand: what it does at once, kept, held, and let go again', async ({
  page
}) => {
  await openDemo(page);
  await planned(page);
  await openOrder(page);
  const hub = drawing(page).locator('a[data-wave="1"]', { hasText: 'depot-hub: 8.50 to 9' });
  const before = await hub.getAttribute('data-first');
  expect(before).toBe('2031-03-10');
  await hub.focus();
  await page.keyboard.press('Shift+ArrowRight');
  const tried = page.locator('[data-trial]');
  await expect(tried).toContainText('depot-hub to 9: begins on 11 Mar 2031');
  await expect(tried.locator('[data-moved]')).toContainText('4 steps otherwise');
  await expect(hub).toHaveAttribute('data-first', '2031-03-11');
  await expect(page.locator('[data-open-wave]')).toContainText('depot-hub: 8.50 to 9');
  await expectAccessible(page);
  await tried.getByRole('button', { name: 'Let it go' }).click();
  await expect(hub).toHaveAttribute('data-first', '2031-03-10');
  // By hand, a week on.
  const box = await hub.locator('rect').boundingBox();
  if (!box) throw new Error('the wave has no place');
  const day = await drawing(page).evaluate((svg) => {
    const ticks = [...svg.querySelectorAll('text.tick')].map((t) => Number(t.getAttribute('x')));
    return ((ticks[1] ?? 0) - (ticks[0] ?? 0)) / 3;
  });
  await page.mouse.move(box.x + 8, box.y + 20);
  await page.mouse.down();
  await page.mouse.move(box.x + 8 + 7 * day, box.y + 20, { steps: 6 });
  await page.mouse.up();
  await expect(tried).toContainText('depot-hub to 9: begins on 17 Mar 2031');
  await expect(tried.locator('[data-compared]')).toContainText('20 Mar 2031');
  await tried.getByRole('button', { name: 'Keep it' }).click();
  const laid = page.locator('[data-laid-down]');
  await expect(laid).toContainText('depot-hub to 9: begins on 17 Mar 2031');
  await expect(hub).toHaveAttribute('data-first', '2031-03-17');
  // It stays over a reload; and without it the wave would lie where it was.
  await page.reload();
  await expect(hub).toHaveAttribute('data-first', '2031-03-17');
  await laid.getByRole('button', { name: /^Try without/ }).click();
  await expect(hub).toHaveAttribute('data-first', '2031-03-10');
});

test('a day on which nothing may begin is told as such; people and windows are tried beside the order', async ({
  page
}) => {
  await openDemo(page);
  await planned(page);
  await openOrder(page);
  const day = page.getByRole('textbox', { name: 'Day of the wave' });
  await drawing(page).locator('a', { hasText: 'depot-ledger: 3.7 to 4.0' }).click();
  await day.fill('15 Mar 2031');
  await page
    .getByRole('form', { name: 'Lay down for this wave' })
    .getByRole('button', { name: 'Try it' })
    .click();
  const tried = page.locator('[data-trial]');
  await expect(tried.locator('[data-moved]')).toContainText('otherwise');
  await expect(tried.locator('[data-compared]')).toContainText('worse');
  await expect(page.locator('[data-stuck]', { hasText: 'depot-ledger' })).toContainText('What would save it');
  await tried
    .getByRole('button', { name: /^Do not try/ })
    .first()
    .click();
  await tried.getByRole('button', { name: 'Let it go' }).click();
  await page
    .getByRole('combobox', { name: 'What if' })
    .selectOption({ label: 'the night crew: one more at once, 3' });
  await page.getByRole('form', { name: 'What if' }).getByRole('button', { name: 'Try it' }).click();
  await expect(tried).toContainText('has people for 3 systems at once');
  await expect(tried.locator('[data-moved]')).toBeVisible();
  await page.getByText('cases that hang on nothing').click();
  await expect(page.locator('[data-waves]')).toContainText('ctrl-01');
});

test('with nothing, and with nothing that hangs on anything, the place says so', async ({ page }) => {
  await page.goto('/order');
  await expect(page.getByRole('heading', { name: 'Nothing is on the desk yet' })).toBeVisible();
  await openDemo(page);
  const demo = JSON.parse(readFileSync('demo/saltmarsh.json', 'utf8')) as { systems: { links?: unknown }[] };
  const alone = { ...demo, systems: demo.systems.filter((s) => s.links === undefined).slice(0, 20) };
  await page.goto('/import');
  await giveFile(page, 'alone.json', JSON.stringify(alone));
  await page.getByRole('button', { name: 'Open this workspace' }).click();
  await planned(page);
  await page.goto('/order');
  await expect(page.getByRole('heading', { level: 1, name: 'No waves' })).toBeVisible();
  await expect(page.getByText('Nothing here hangs on anything else')).toBeVisible();
});
