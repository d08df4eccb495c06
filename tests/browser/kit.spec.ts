import { expect, giveFile, openDemo, planned, test } from './desk';

/** Each part of the kit by keyboard alone, where it stands. */
test.beforeEach(({ page }) => openDemo(page));

test('a fold opens and shuts with Enter, and says which', async ({ page }) => {
  await page.goto('/stair?at=draw-01');
  const why = page.locator('.why .fold-line').first();
  await why.focus();
  await expect(why).toHaveAttribute('aria-expanded', 'false');
  await page.keyboard.press('Enter');
  await expect(why).toHaveAttribute('aria-expanded', 'true');
  await expect(page.locator('.why .fold-body')).not.toBeEmpty();
  await page.keyboard.press('Space');
  await expect(why).toHaveAttribute('aria-expanded', 'false');
});

test('a menu: Enter opens, arrows go from one to the next, Escape leaves it', async ({ page }) => {
  await page.goto('/stair?at=draw-01');
  const way = page.getByRole('button', { name: 'Take out' });
  await way.focus();
  await expect(way).toHaveAttribute('aria-expanded', 'true');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('menuitem', { name: 'Drawing as SVG' })).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('menuitem', { name: 'Print' })).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('menuitem')).toHaveCount(0);
});

test('tabs: arrows move, Enter shows', async ({ page }) => {
  await page.goto('/catalogue?product=garnock-desk&view=table');
  await page.getByRole('tab', { name: 'Table' }).focus();
  await page.keyboard.press('ArrowRight');
  const calendar = page.getByRole('tab', { name: 'Calendar' });
  await expect(calendar).toBeFocused();
  await expect(calendar).toHaveAttribute('aria-selected', 'false');
  await page.keyboard.press('Enter');
  await expect(calendar).toHaveAttribute('aria-selected', 'true');
  await expect(page).toHaveURL(/view=calendar/);
});

test('a day: any form, what was understood, the other reading, and a month to pick from', async ({
  page
}) => {
  await page.getByRole('button', { name: 'as of' }).click();
  const dialog = page.getByRole('dialog');
  const day = dialog.getByLabel('Day', { exact: true });
  await day.fill('4 June 31');
  await expect(dialog.getByRole('status')).toHaveText('4 Jun 2031');
  await day.fill('no day');
  await expect(dialog.getByRole('status')).toHaveText('This is no day.');
  await day.fill('5/6/2031');
  await expect(dialog.getByRole('status')).toContainText('5 Jun 2031');
  await dialog.getByRole('button', { name: '6 May 2031' }).press('Enter');
  await expect(day).toHaveValue('6 May 2031');
  await dialog.getByRole('button', { name: 'Day: pick from a calendar' }).press('Enter');
  await dialog.getByRole('gridcell', { name: 'Tuesday, 6 May 2031' }).focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await expect(day).toHaveValue('7 May 2031');
  await dialog.getByRole('button', { name: 'Plan as of this day' }).press('Enter');
  await expect(page.getByRole('button', { name: 'as of 7 May 2031' })).toBeVisible();
});

test('a sheet takes the focus and gives it back; a toggle turns with Space', async ({ page }) => {
  await page.keyboard.press('?');
  const sheet = page.getByRole('dialog', { name: 'Keys and settings' });
  const toggle = sheet.getByRole('checkbox', { name: 'Keys without Ctrl are on' });
  await toggle.focus();
  await page.keyboard.press('Space');
  await expect(toggle).not.toBeChecked();
  await page.keyboard.press('Escape');
  await expect(sheet).toHaveCount(0);
  await page.keyboard.press('?');
  await expect(sheet).toHaveCount(0);
});

test('help beside the box and words beside a button come with the focus, and go with Escape', async ({
  page
}) => {
  await page.getByRole('button', { name: 'How to find' }).focus();
  await expect(page.getByText('nobody knows it')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByText('nobody knows it')).toHaveCount(0);
  await page.getByRole('button', { name: 'One line' }).focus();
  await expect(page.getByRole('tooltip')).toContainText('more than 50 situations');
});

test('a chart goes from point to point and says it; its table says the same', async ({ page }) => {
  await page.goto('/ready');
  await page.locator('[data-curve] .fold-line').press('Enter');
  const chart = page.getByRole('img', { name: /^Systems opened by what is spent/ });
  await expect(chart.locator('canvas')).toBeVisible();
  await chart.focus();
  await page.keyboard.press('ArrowRight');
  const said = page.locator('[data-curve] [aria-live]');
  await expect(said).toHaveText('EUR 0: 41 systems');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  const third = (await said.textContent()) ?? '';
  await page.getByRole('button', { name: 'As a table' }).press('Enter');
  const row = page.getByRole('table', { name: 'Systems opened by what is spent' }).getByRole('row').nth(3);
  expect((await row.innerText()).split(/\s*\t\s*/).join(': ')).toBe(third);
});

test('a dialog, choices, a search and a drop zone are reached and worked without a mouse', async ({
  page
}) => {
  await page.getByRole('searchbox', { name: 'Find' }).fill('team = ticket');
  await planned(page);
  await page.getByRole('button', { name: 'Take out' }).press('Enter');
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.goto('/import');
  await expect(page.getByText('Step 1 of 2')).toBeVisible();
  const choosing = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Choose a file' }).press('Enter');
  await (
    await choosing
  ).setFiles({
    name: 'one.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('name,version\nzed-1,Garnock Desk 4\n')
  });
  await expect(page.getByText('Step 2 of 2')).toBeVisible();
});

test('a long list: Tab goes from line to line, and those out of sight come into it', async ({ page }) => {
  await page.goto('/import');
  const lines = Array.from({ length: 120 }, (_, i) => `many-${i + 100},Garnock Desk 4 r1 Plain`);
  await giveFile(page, 'many.csv', `host,os\n${lines.join('\n')}\n`);
  await page.getByRole('button', { name: /^Take in/ }).click();
  await planned(page);
  await page.goto('/stair?at=many-100');
  const fold = page.locator('[data-alike] .fold-line');
  await expect(fold).toContainText('120 systems alike');
  await fold.focus();
  await page.keyboard.press('Enter');
  const list = page.getByRole('list', { name: 'Systems alike' });
  await expect(list.getByRole('link', { name: 'many-100' })).toBeVisible();
  expect(await list.getByRole('link').count()).toBeLessThan(60);
  await list.getByRole('link', { name: 'many-100' }).focus();
  // A line at a time, as a reader goes: the next one is there before the next Tab.
  for (let i = 101; i <= 200; i++) {
    await page.keyboard.press('Tab');
    await expect(list.getByRole('link', { name: `many-${i}` })).toBeFocused();
  }
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/system\?at=many-200/);
});
