import { readFileSync } from 'node:fs';
import { expect, expectAccessible, follow, openDemo, test } from './desk';

test.beforeEach(({ page }) => openDemo(page));

test(
  'Rights: every tread says what the count says, and the order takes it out',
  { tag: '@quick' },
  async ({ page }) => {
    await follow(page, '/rights');
    await expect(page.locator('[data-total]')).toContainText(
      'EUR 9,592.00 for the ways chosen; 5 rights are late'
    );
    const offer = page.locator('[data-tread="right desk-offer-5"]');
    await expect(offer.locator('[data-stretch="drawn"]')).toHaveAttribute('data-units', '6');
    await expect(offer.locator('[data-stretch="to buy"]')).toHaveAttribute('data-units', '33');
    await expect(page.locator('[data-right="right desk-offer-5"]')).toContainText(
      '21 needed, 6 drawn from what is held, 15 to buy for EUR 585.00'
    );
    await page.locator('[data-tread="pool terrace units/terrace"]').click();
    const units = page.locator('[data-right="pool terrace units/terrace"]');
    await expect(units).toContainText('24 held by the estate: 0 drawn, 24 spare');
    await expect(units.locator('[data-must-not]')).toContainText(
      '12 of cottage units are held and must not be used'
    );
    await page.locator('[data-tread="right draft-up"]').click();
    await expect(page.locator('[data-right="right draft-up"]')).toContainText('9 needed, 4 drawn');
    await page.getByRole('link', { name: 'What to order' }).last().click();
    await expect(page.locator('[data-total]')).toContainText('EUR 9,592.00');
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Take out as CSV' }).click();
    const lines = readFileSync(await (await download).path(), 'utf8')
      .trim()
      .split(/\r?\n/);
    const cost = lines[0]?.split(',').indexOf('Cost EUR') ?? -1;
    const cents = lines.slice(1).map((l) => Math.round(Number(l.split(',')[cost]) * 100));
    expect(cents.reduce((a, b) => a + b, 0)).toBe(959_200);
  }
);

test('what is held is written in the sheet, for a team and until a day, and counts at once', async ({
  page
}) => {
  await page.goto('/estate/systems?sheet=rights');
  const grid = page.locator('[role=grid]');
  await grid.focus();
  await page.keyboard.press('Control+End');
  await page.keyboard.press('Home');
  await page.keyboard.type('desk-up-4');
  await page.keyboard.press('Tab');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.type('3');
  await page.keyboard.press('Enter');
  await page.goto('/rights?at=right%20desk-up-4');
  await expect(page.locator('[data-right="right desk-up-4"]')).toContainText(
    '3 held by the estate: 3 drawn, 0 spare'
  );
  await page.keyboard.press('Control+z');
});

test('what waiting costs: the day it jumps, why, by team; by keyboard from the estate in three keys', async ({
  page
}) => {
  await page.goto('/estate');
  await page.locator('[data-case]').first().waitFor();
  for (let i = 0; i < 3; i++) await page.keyboard.press(']');
  await expect(page).toHaveURL(/\/rights$/);
  await page.getByRole('link', { name: 'What waiting costs' }).click();
  // Four of the depot wait for its pilots, and begin fifteen days behind them.
  await expect(page.locator('[data-verdict]')).toContainText('EUR 9,592.00 until 14 Apr 2031; then');
  await page.getByLabel('For').selectOption('Doors');
  await expect(page.locator('[data-verdict]')).toContainText(
    'EUR 0.00 until 31 May 2031; then EUR 190.00, 8 of 46'
  );
  await expect(page.locator('[data-stretch="2031-07-01"]')).toContainText('EUR 380.00');
});

test('a price list is pasted: what it changes is shown, taken over as a draft, and undone', async ({
  page
}) => {
  await page.goto('/catalogue?product=hollin-door&view=terms');
  await page.getByRole('button', { name: 'Paste a price list' }).click();
  const dialog = page.getByRole('dialog');
  await dialog
    .getByLabel('Price list')
    .fill(
      'Item;Price;Packs;Offer;Until\nTerrace units;99,00;10;80,00;2031-05-31\nSignal licence;12.00;;;\n;5;;;'
    );
  await expect(dialog.locator('[data-price-line]')).toHaveText([
    /Terrace units\s*price 99.00 instead of 95.00, packs of 10 instead of 4, offer 80.00 until 2031-05-31 instead of 78.00/,
    /Signal licence, new\s*price 12.00/,
    /not taken: it names no right/
  ]);
  await dialog.getByRole('button', { name: 'Take over 2 lines' }).click();
  await expect(dialog).toHaveCount(0);
  const rights = page.locator('[data-list="rights"]');
  await expect(rights).toContainText('Signal licence');
  await page.keyboard.press('Control+z');
  await expect(rights).not.toContainText('Signal licence');
});

test('Rights stand in nobody’s way', async ({ page }) => {
  for (const theme of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme: theme });
    for (const path of ['/rights', '/rights/buy', '/rights/waiting?team=Doors']) {
      await page.goto(path);
      await expect(page.locator('h1').first()).toBeVisible();
      await expect(page.getByText('Laying every way')).toHaveCount(0);
      await expectAccessible(page);
    }
  }
});

test('tried on the spot: another day, one more option, before and after; nothing is changed', async ({
  page
}) => {
  await page.goto('/rights');
  const trying = page.locator('[data-try]');
  await trying.getByLabel('Try', { exact: true }).selectOption('day');
  await trying.getByRole('textbox').fill('2031-06-10');
  await page.keyboard.press('Tab');
  // The spring offer has ended by then.
  await expect(trying.getByRole('row', { name: /^To buy/ })).toHaveText(/To buy\s*33\s*0/);
  await trying.getByRole('button', { name: 'Leave it' }).click();
  await expect(page.locator('[data-total]')).toContainText('EUR 9,592.00');
  await page.goto('/rights?at=pool%20terrace%20units%2Fterrace');
  const forecast = page.locator('[data-forecast]').first();
  await expect(forecast).toContainText('Once more, when nothing is free, the same 3 systems would draw');
  await expect(forecast).toContainText('with lift control on too');
  const clocks = page.locator('[data-clocks]');
  await expect(clocks).toContainText('from the first start on; then: opens drawings for reading only');
  const ask = page.locator('[data-ask]');
  await ask.getByRole('button', { name: 'Give it to somebody…' }).first().click();
  await expect(ask.getByRole('form', { name: 'Ask' }).getByLabel('Who finds out')).toHaveValue(/./);
  await expectAccessible(page);
});

test('a team is split, told before what moves, and joined again; one is kept back by name', async ({
  page
}) => {
  await page.goto('/estate/teams');
  const doors = page.locator('[data-team="Doors"]');
  await doors.getByRole('button', { name: 'Split or join' }).click();
  await page.getByRole('menuitem', { name: 'Split it in two…' }).click();
  const form = page.getByRole('form', { name: 'Split a team' });
  await form.getByLabel('Those that go').fill('edition = Cottage');
  await form.getByLabel('Into the team').fill('Small doors');
  await expect(form.getByRole('status')).toContainText('It moves no verdict.');
  await form.getByRole('button', { name: 'Split it' }).click();
  const small = page.locator('[data-team="Small doors"]');
  await expect(small).toBeVisible();
  await small.getByRole('button', { name: 'Split or join' }).click();
  await page.getByRole('menuitem', { name: 'Join it to another team…' }).click();
  const join = page.getByRole('form', { name: 'Join two teams' });
  await join.getByLabel('Into the team').selectOption('Doors');
  await join.getByRole('button', { name: 'Join them' }).click();
  await expect(small).toHaveCount(0);
  await expect(doors).toContainText('6 systems');
  const board = page.locator('[data-team="Board room"]');
  await expect(board.locator('[data-kept-back]')).toContainText('board-05');
  await board.getByRole('button', { name: /keeps back/ }).click();
  await board.getByLabel('Keep back by name').fill('board-02');
  await board.getByLabel('Keep back by name').blur();
  await expect(board.getByRole('status')).toContainText('moves');
  await board.getByRole('button', { name: 'Keep it' }).click();
  await expect(board.locator('[data-kept-back]')).toContainText('Kept back: board-02');
});
