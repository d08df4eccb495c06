import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, expectAccessible, follow, openDemo, test } from './desk';

/** Presses keys one after the other, as a person would; says how many it took. */
async function press(page: Page, ...keys: readonly string[]): Promise<number> {
  for (const key of keys) await page.keyboard.press(key);
  return keys.length;
}

/** Ready, once it has looked into the whole plan. */
async function openReady(page: Page, view = ''): Promise<void> {
  await page.goto(`/ready${view}`);
  await expect(page.locator('[data-looked="true"]')).toBeAttached();
}

test.describe('by keyboard alone', () => {
  test.beforeEach(async ({ page }) => {
    await openDemo(page);
    await page.getByRole('button', { name: 'Close' }).click();
  });

  test('which systems must be reinstalled: 2 keys', async ({ page }) => {
    expect(await press(page, ']', ']')).toBe(2);
    const afresh = page.locator('[data-afresh]');
    await expect(afresh).toContainText('17 systems');
    await expect(afresh).toContainText('west-01, west-02, west-03; keeps data');
    await expect(afresh).toContainText('cad-01');
  });

  test('why the oldest desktop cannot go straight to the newest: 10 keys', async ({ page }) => {
    let keys = await press(page, '/', ...'desk 3'.split(''));
    await expect(page.locator('[data-case]').first()).toContainText('Garnock Desk 3');
    keys += await press(page, 'ArrowDown', 'Enter');
    await expect(page.locator('[data-not-straight]')).toBeVisible();
    keys += await press(page, 'w');
    await expect(page.locator('[data-not-straight]')).toContainText(
      'no hop in place leads from 3 to 6; the publisher’s table is complete, so there is none'
    );
    expect(keys).toBe(10);
  });

  test('which one purchase opens most: 2 keys', async ({ page }) => {
    expect(await press(page, ']', ']')).toBe(2);
    await expect(page.locator('[data-opens-most] p').first()).toContainText(
      'Right: Spring offer for line 5, Garnock Desk: 25 systems for EUR 1,287.00'
    );
  });

  test('which question to ask first: 2 keys', async ({ page }) => {
    expect(await press(page, ']', ']')).toBe(2);
    await expect(page.locator('[data-ask-first]')).toContainText(
      'whether it has Quay archive source, and how that fares, Garnock Desk: settles 16 verdicts'
    );
  });
});

test(
  'Ready: blockers by what is lost, shortfalls, cures; a demand is waived with a reason and comes back by undo',
  { tag: '@quick' },
  async ({ page }) => {
    await openDemo(page);
    await openReady(page);
    const first = page.locator('[data-item]').first();
    await expect(first).toContainText('Quay archive source');
    const memory = page.locator('[data-item="pellow-terminal/requirement/term-memory"]');
    await memory.locator('.fold-line').click();
    await expect(memory).toContainText('2 GB short: 1 GB of 3 GB');
    await expect(memory.locator('[data-cure-of="term-more-memory"]')).toContainText('opens 8 by itself');
    await expect(memory.locator('[data-ready-cell="stop-16"]')).toHaveAttribute('data-dealt', 'cured');
    await page.getByLabel('Within a budget').fill('2500');
    await expect(page.locator('[data-budget]')).toContainText('Nothing else within it opens more.');
    await expect(page.locator('svg.cures')).toContainText('budget EUR 2,500.00');
    await page.getByLabel('Within a budget').fill('much');
    await expect(page.locator('[data-budget]')).toContainText('That is no amount of money.');
    const panel = page.locator('[data-item="pellow-terminal/requirement/term-panel"]');
    await panel.locator('.fold-line').click();
    await panel.getByRole('button', { name: 'Waive the demand…' }).first().click();
    await page.getByRole('dialog').getByLabel('Why').fill('nobody looks at it');
    await page.getByRole('button', { name: 'Decide', exact: true }).click();
    await expect(page.locator('.notice')).toContainText('Waive the demand: ');
    await follow(page, '/estate/decisions');
    const waived = page.locator('[data-decision]', { hasText: 'goes without the demand: ' }).first();
    await expect(waived).toContainText('because: nobody looks at it');
    await page.keyboard.press('Control+z');
    await expect(waived).toHaveCount(0);
  }
);

test('asked of each: every mark of the table is that of the list; unknown companions stand apart', async ({
  page
}) => {
  await openDemo(page);
  await openReady(page, '/marks');
  await page.getByLabel('Asked of').selectOption({ label: 'Pellow Terminal' });
  const cell = (row: string, system: string) =>
    page.locator(`[data-row="pellow-terminal/requirement/${row}"] [data-cell="${system}"]`);
  await expect(cell('term-memory', 'stop-16')).toHaveAttribute('data-mark', 'fails');
  await expect(cell('term-memory', 'stop-16')).toContainText('1 GB short');
  await expect(cell('term-memory', 'stop-dark')).toHaveAttribute('data-mark', 'unknown');
  await expect(cell('term-memory', 'stop-33')).toHaveAttribute('data-mark', 'holds');
  await page.getByLabel('Asked of').selectOption({ label: 'Marram Draft' });
  await expect(page.locator('[data-tally="cad-05"] td').last()).toHaveText('9');
});

test('fetch and buy: rights by edition with what is held, keys and parts; taken out as CSV', async ({
  page
}) => {
  await openDemo(page);
  await openReady(page, '/fetch');
  const offer = page.locator('[data-right="desk-offer-5"][data-edition="plain"]');
  await expect(offer.locator('td').nth(2)).toHaveText('21');
  await expect(offer.locator('td').nth(3)).toHaveText('6');
  await expect(offer.locator('td').nth(4)).toHaveText('15');
  await expect(page.locator('[data-fetch="key"]')).toContainText('Route stamp');
  await expect(page.locator('[data-fetch="part"]')).toContainText('takes 21 days to come');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Take out as CSV' }).click()
  ]);
  expect(readFileSync(await file.path(), 'utf8')).toContain(
    'Spring offer for line 5,Garnock Desk,Plain,21,6,15,585'
  );
});

test('what if: a named copy, before and after, applied as one step and undone; today’s result kept and looked at again', async ({
  page
}) => {
  await openDemo(page);
  await openReady(page, '/rechecks');
  await expect(page.getByRole('button', { name: 'Keep today’s result' })).toBeEnabled();
  await page.getByLabel('Note').fill('before the walk');
  await page.getByRole('button', { name: 'Keep today’s result' }).click();
  await expect(page.locator('[data-recheck]')).toContainText('0 mended');
  await page.goto('/ready/what-if');
  await page.getByLabel('A new copy').fill('Memory for the yard');
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByLabel('Systems', { exact: true }).locator('option')).not.toHaveCount(0);
  const yard = await page
    .getByLabel('Systems', { exact: true })
    .locator('option')
    .evaluateAll((list) =>
      list
        .find((o) => /4 r2 Plain/.test(o.textContent ?? '') && /14/.test(o.textContent ?? ''))
        ?.getAttribute('value')
    );
  await page.getByLabel('Systems', { exact: true }).selectOption(yard ?? '');
  await page.getByLabel('Fact', { exact: true }).selectOption('memory');
  await page.getByLabel('Value', { exact: true }).fill('a lot');
  await expect(page.getByText('That is no value for this fact.')).toBeVisible();
  await page.getByLabel('Value', { exact: true }).fill('16 GB');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.locator('.changes')).toContainText('memory of 14 systems is 16 GB');
  await expect(page.locator('[data-reaching]')).toContainText('Goals reached');
  await page.getByLabel('What if').selectOption('another day');
  await page.getByRole('textbox', { name: 'Day' }).fill('2031-09-01');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.locator('[data-plan-change]').first()).toBeVisible();
  await page.locator('.changes').getByRole('button', { name: 'Take out' }).last().click();
  await expect(page.locator('.changes li')).toHaveCount(1);
  await page.getByRole('button', { name: 'Apply it for good' }).click();
  await expect(page.getByText('Applied Memory for the yard')).toBeVisible();
  await page.goto('/ready/rechecks');
  const row = page.locator('[data-rechecked="garnock-desk/site demand/desk-memory-6"]');
  await expect(row).toContainText('holds now: yard-01');
  await page.keyboard.press('Control+z');
  await expect(row).toHaveCount(0);
});

test('compare: rows that do not differ are folded, features and exits told; waiting as of a later day', async ({
  page
}) => {
  await openDemo(page);
  await page.goto('/stair?at=draw-01');
  await expect(page.locator('svg.stair')).toBeVisible();
  await page.keyboard.press('c');
  const table = page.getByRole('table', { name: 'Side by side' });
  await expect(table).toContainText('nothing is done');
  await expect(table.locator('[data-row="Features lost"]')).toContainText('Card file; instead: the calendar');
  await expect(page.locator('[data-same]')).toContainText('the same');
  await page.getByRole('button', { name: 'Line 7 preview' }).click();
  await expect(table.locator('[data-row="Way out"]')).toContainText('fresh install');
  await page.getByLabel('Wait until', { exact: true }).fill('2031-07-15');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(table.locator('[data-side="wait"]')).toBeVisible();
  await expect(table.locator('thead th')).toHaveCount(5);
});

test('Ready and Compare stand in nobody’s way', async ({ page }) => {
  await openDemo(page);
  await openReady(page);
  await page.locator('[data-item] .fold-line').first().click();
  for (const path of [
    '',
    '/marks',
    '/fetch',
    '/questions',
    '/rechecks',
    '/what-if',
    '../stair/compare?at=draw-01'
  ]) {
    const to = path.startsWith('..') ? path.slice(2) : `/ready${path}`;
    if (path !== '') await follow(page, to);
    await expectAccessible(page);
  }
});
