import { readFileSync } from 'node:fs';
import { expect, expectAccessible, kept, openDemo, planned, test } from './desk';

test.beforeEach(({ page }) => openDemo(page));

test('a crew of two makes three rounds; a freeze is opened for them by decision, and shut again by undo', async ({
  page
}) => {
  await page.goto('/stair?at=ctrl-01');
  const rounds = page.locator('[data-rounds] li');
  await expect(rounds).toHaveCount(3);
  await expect(rounds.nth(2)).toContainText('2 systems: Tue 11 Mar 23:30 to 00:50, turn round by 03:10');
  await expect(page.locator('[data-eaten]')).toContainText('windows and freezes 4, that they go in rounds 1');
  const freezes = page.locator('[data-freezes] li');
  await expect(freezes.first()).toContainText('14 Apr 2031 to 20 Apr 2031: the fair');
  await freezes.first().getByRole('button', { name: 'Let these through…' }).click();
  await page.getByRole('dialog').getByLabel('Why').fill('The fair is far from them');
  await page.getByRole('button', { name: 'Decide' }).click();
  await expect(freezes.first()).toContainText('open for these, by decision');
  await kept(page);
  await page.goto('/estate/decisions');
  await expect(page.getByText('goes on through the freeze 14 Apr 2031 to 20 Apr 2031')).toBeVisible();
  await page.keyboard.press('ControlOrMeta+z');
  await expect(page.getByText('goes on through the freeze')).toHaveCount(0);
});

test('pilots and who is kept back are said in the goal', async ({ page }) => {
  await page.goto('/estate/teams');
  const goal = page.locator('[data-goal="East depot"]');
  await expect(goal).toContainText('sends ahead 2 systems of each product and watches them for 2 weeks');
  const team = page.locator('[data-goal="Drawing office"]');
  await team.getByRole('button', { name: 'Differ in something' }).click();
  await page.getByRole('menuitem', { name: 'keeps back…' }).or(page.getByText('keeps back…')).first().click();
  await team.getByLabel('Systems of each product').fill('1');
  await team.getByLabel('Systems of each product').press('Enter');
  await team.getByLabel('Kept back until').first().selectOption('until all others have run for');
  await team.getByRole('button', { name: 'Keep it' }).click();
  await expect(team).toContainText(
    '1 system of each product, the last by name, until all others have run for 2 weeks'
  );
  await expectAccessible(page);
});

test('today is taken ahead by its keys, and everything follows', async ({ page }) => {
  await page.goto('/dates');
  const today = page.getByRole('slider', { name: 'Today' });
  await today.focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press('PageUp');
  await expect(today).toHaveAttribute('aria-valuetext', '2 Jun 2031');
  await page.keyboard.press('Escape');
  await expect(today).toHaveAttribute('aria-valuetext', '10 Mar 2031');
  for (let i = 0; i < 3; i++) await page.keyboard.press('PageUp');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-as-of]')).toContainText('Everything is planned as of 2 Jun 2031');
  await expect(page.locator('[data-total]')).not.toContainText('6 days are past');
  await kept(page);
  await page.goto('/estate');
  await planned(page);
  await expect(page.getByText('2 Jun 2031').first()).toBeVisible();
});

test('the load by week, days that have moved, and a calendar that can be subscribed to', async ({
  page,
  request
}) => {
  await page.goto('/dates');
  await expect(page.locator('[data-load="control-room"]')).toContainText('the crew can watch all of it');
  await expect(page.locator('[data-moved] li').first()).toContainText('put off by 167 days');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Let a calendar subscribe…' }).click();
  const link = page.locator('[data-subscribed] a');
  const address = (await link.getAttribute('href')) ?? '';
  expect(address).toMatch(/^http:\/\/127\.0\.0\.1:\d+\/api\/calendar\/[0-9a-f]{32}\.ics$/);
  const first = await (await request.get(address)).text();
  expect((first.match(/BEGIN:VEVENT/g) ?? []).length).toBeGreaterThan(30);
  expect(first).toContain('SUMMARY:Garnock Desk 5 Studio\\, 6 systems: In place to 6 Studio\\, round 3');
  await page.getByRole('button', { name: 'Send it anew' }).click();
  await expect(link).toHaveAttribute('href', address);
  // Another site is given none, and one that is passed on neither.
  const foreign = await request.get(address, { headers: { 'x-forwarded-for': '192.0.2.1' } });
  expect(foreign.status()).toBe(404);
  await page.getByRole('button', { name: 'Forget it' }).click();
  await expect(link).toHaveCount(0);
  await expect.poll(async () => (await request.get(address)).status()).toBe(404);
});

test('one page for whoever approves, and what staying, going and waiting come to', async ({ page }) => {
  await page.goto('/stair?at=cad-01');
  await page.getByRole('link', { name: 'One page for whoever approves it' }).click();
  const sheet = page.locator('[data-sheet]');
  await expect(sheet).toHaveCount(1);
  for (const label of ['Systems', 'The way', 'Outage', 'Cost', 'Risk', 'Deadline', 'Begin by', 'Way back'])
    await expect(sheet.locator('dt', { hasText: label }).first()).toBeVisible();
  await expectAccessible(page);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Take out as Markdown' }).click();
  const text = readFileSync(await (await download).path(), 'utf8');
  expect(text).toContain(`# ${(await sheet.locator('h1').innerText()).trim()}`);
  expect(text).toContain('**Way back**');
  await page.getByLabel('To be approved for').selectOption('Control room');
  await expect(sheet.first()).toContainText('Control room');
  await page.goto('/stair/time?at=cad-01');
  await expect(page.locator('[data-closes]')).toContainText('31 Aug 2031');
  await expect(page.locator('canvas')).toHaveCount(3);
  await expectAccessible(page);
});
