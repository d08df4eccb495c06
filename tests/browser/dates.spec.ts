import { readFileSync } from 'node:fs';
import { expect, expectAccessible, follow, kept, openDemo, test } from './desk';

test.beforeEach(({ page }) => openDemo(page));

test('Dates: what is due in order, the drawing says the same days, a mark opens its reason', async ({
  page
}) => {
  await follow(page, '/dates');
  await expect(page.locator('[data-total]')).toContainText('days are past; the next is 4 Apr 2031');
  const rows = page.locator('[data-due] tbody tr');
  const days = await rows.locator('td:first-child').allInnerTexts();
  const times = days.map((d) => Date.parse(`${d} UTC`));
  expect(times.length).toBeGreaterThan(10);
  expect(times).toEqual([...times].sort((a, b) => a - b));
  // Read back from the drawing: every latest start that is listed stands in it, further right the later it is.
  const rings = await page
    .locator('a[data-mark="latest start"]')
    .evaluateAll((all) =>
      all.map(
        (a) =>
          [Number(a.getAttribute('data-day')), Number(a.querySelector('circle')?.getAttribute('cx'))] as const
      )
    );
  expect(rings.length).toBe(await rows.filter({ hasText: 'latest start' }).count());
  for (const [day, x] of rings)
    for (const [other, y] of rings) if (day < other) expect(x).toBeLessThanOrEqual(y);
  await rows.filter({ hasText: 'Garnock Desk' }).last().getByRole('link').click();
  await expect(page.locator('[data-open]')).toContainText('Garnock Desk');
  await expectAccessible(page);
});

test('a window is added as a sentence with its next nights; the stair lays the work into it', async ({
  page
}) => {
  await page.goto('/dates/calendars');
  await page.getByLabel('A calendar for').selectOption('the team Drawing office');
  await page.getByLabel('in the time zone').fill('UTC');
  await page.getByRole('button', { name: 'Make it' }).click();
  const card = page.locator('[data-calendar="Drawing office"]');
  await card.getByRole('button', { name: 'Add a window…' }).click();
  const form = card.getByRole('form', { name: 'A window' });
  await form.getByLabel('It recurs').selectOption('every month');
  await form.getByLabel('on the').selectOption('last');
  await form.getByLabel('day of the week').selectOption('Fri');
  await form.getByRole('textbox', { name: 'At', exact: true }).fill('26:00');
  await expect(form.getByRole('status')).toContainText('A time of day is like 22:00.');
  await form.getByRole('textbox', { name: 'At', exact: true }).fill('20:00');
  await form.getByLabel('For so many hours').fill('8');
  await expect(form.getByRole('status')).toContainText('the last Fri of every month from 20:00, for 8 h.');
  await expect(form.getByRole('status')).toContainText('Next: Fri 28 Mar 20:00, Fri 25 Apr 20:00');
  await form.getByRole('button', { name: 'Keep it' }).click();
  await expect(card.locator('[data-next]')).toContainText('Fri 28 Mar 20:00');
  await expectAccessible(page);
  await kept(page);
  await page.goto('/stair?at=draw-01');
  await expect(page.locator('.ladder')).toContainText('Fri 28 Mar 20:00 to');
  await expect(page.locator('.ladder')).toContainText('turn round by');
  // A freeze over that night puts it off by a month.
  await page.goto('/dates/calendars');
  await card.getByRole('button', { name: 'Add a freeze…' }).click();
  const freeze = card.getByRole('form', { name: 'A freeze' });
  await freeze.getByRole('textbox', { name: 'First day' }).fill('2031-03-28');
  await freeze.getByRole('textbox', { name: 'Last day' }).fill('2031-03-28');
  await freeze.getByLabel('Because').fill('the fair');
  await freeze.getByRole('button', { name: 'Keep it' }).click();
  await expect(card.locator('[data-freeze]')).toContainText('the fair');
  await expect(card.locator('[data-next]')).toContainText('Next: Fri 25 Apr 20:00');
  await page.keyboard.press('Control+z');
  await expect(card.locator('[data-freeze]')).toHaveCount(0);
});

test('at phone width the days stand as a list', async ({ page }) => {
  await page.setViewportSize({ width: 400, height: 800 });
  await page.goto('/dates');
  await expect(page.locator('[data-due] tbody tr').first()).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true);
});

test('a calendar file comes in with its reasons, and what is due goes out as one', async ({ page }) => {
  await page.goto('/dates/calendars');
  const card = page.locator('[data-calendar="Control room"]');
  await card.getByRole('button', { name: 'Bring in a calendar file…' }).click();
  const file = [
    'BEGIN:VCALENDAR',
    'BEGIN:VEVENT',
    'UID:1',
    'DTSTART;TZID=Europe/Lisbon:20310108T200000',
    'DURATION:PT4H',
    'RRULE:FREQ=MONTHLY;BYDAY=2WE',
    'SUMMARY:Second Wednesday',
    'END:VEVENT',
    'BEGIN:VEVENT',
    'UID:2',
    'DTSTART;VALUE=DATE:20310501',
    'SUMMARY:The procession',
    'END:VEVENT',
    'BEGIN:VEVENT',
    'UID:3',
    'DTSTART:20310108T200000Z',
    'DURATION:PT4H',
    'SUMMARY:Elsewhere',
    'END:VEVENT',
    'END:VCALENDAR'
  ].join('\r\n');
  await card.getByLabel('A calendar file').fill('nothing of the kind');
  await card.getByRole('button', { name: 'Read it' }).click();
  await expect(card.getByRole('status')).toContainText('no calendar file');
  await card.getByLabel('A calendar file').fill(file);
  await card.getByRole('button', { name: 'Read it' }).click();
  const status = card.getByRole('status');
  await expect(status).toContainText('Second Wednesday, the second Wed of every month from 20:00, for 4 h');
  await expect(status).toContainText('Freeze: 1 May 2031 to 1 May 2031, The procession');
  await expect(status).toContainText(
    'Not taken: Elsewhere, since it is of UTC and this calendar of Europe/Lisbon'
  );
  await card.getByRole('button', { name: 'Take it in' }).click();
  await expect(card.locator('[data-window]')).toHaveCount(2);
  await expect(card.locator('[data-freeze]')).toHaveCount(2);
  await kept(page);
  await page.goto('/dates');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Take out as a calendar file' }).click();
  const text = readFileSync(await (await download).path(), 'utf8');
  expect(text).toContain('BEGIN:VCALENDAR');
  expect((text.match(/BEGIN:VEVENT/g) ?? []).length).toBeGreaterThan(30);
  expect(text).toMatch(/DTSTART:2031\d{4}T\d{6}Z/);
});
