import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { StandIn } from '../../src/standins/machine';
import { openDemo, planned, test } from './desk';

/**
 * A night played on the demo with stand-ins for three machines: one goes well, one is slow, one fails. `npm run rehearse` plays it
 * alone.
 */
const DAY = '2031-03-10';

const here = (page: Page) => page.locator('[data-open-item]');

async function makeOne(page: Page, system: string): Promise<void> {
  await page.goto(`/stair?at=${system}`);
  await page.locator('.onward').getByRole('button', { name: 'Take this way' }).click();
  await page
    .getByRole('button', { name: /^(Make its worksheet|Only for)/ })
    .first()
    .click();
  await expect(page.locator('[data-worksheet]')).toBeVisible();
}

async function openSheet(page: Page, system: string): Promise<void> {
  await page.goto('/worksheet');
  await page.getByRole('link', { name: system, exact: true }).first().click();
  await expect(page.locator('[data-worksheet]')).toBeVisible();
}

async function passUntil(page: Page, kind: string): Promise<void> {
  for (let i = 0; i < 60; i++) {
    const current = page.locator('.item.here');
    if ((await current.getAttribute('data-kind')) === kind) return;
    const id = (await current.getAttribute('data-item')) ?? '';
    await here(page).getByRole('button', { name: 'Passed', exact: true }).click();
    await expect(page.locator(`[data-item="${id}"]`)).toHaveAttribute('data-state', 'passed');
  }
  throw new Error(`no ${kind} is left`);
}

/** Brings in what a machine says of itself, and tells what the preview makes of it. */
async function read(page: Page, machine: StandIn): Promise<string> {
  await page.goto('/import');
  await page.getByLabel(/Or paste/).fill(machine.record(DAY));
  await page.getByRole('button', { name: 'Read what is pasted' }).click();
  await expect(page.getByLabel('Name of machine 1')).toHaveValue(machine.name);
  return (await page.locator('main').innerText()).replace(/\s+/g, ' ');
}

test('a night rehearsed: one goes well, one is slow, one fails and is planned anew; what the machines say is what stands here', async ({
  page
}) => {
  const well = new StandIn({ name: 'draw-01', product: 'Garnock Desk', version: '4 r1', edition: 'Studio' });
  const slow = new StandIn({ name: 'clock-01', product: 'Brindle Server', version: '6' });
  const bad = new StandIn({ name: 'west-04', product: 'Garnock Desk', version: '3 r5', edition: 'Plain' });
  // One night lasts from noon to noon: whatever the time is here, this one begins in the evening.
  await page.clock.install({ time: new Date().setUTCHours(19, 0, 0, 0) });
  await openDemo(page);
  await planned(page);
  for (const { name } of [well, slow, bad]) {
    await makeOne(page, name);
    await passUntil(page, 'hop');
  }

  // The one that goes well.
  await openSheet(page, well.name);
  await here(page).getByRole('button', { name: 'Start', exact: true }).click();
  await expect(here(page).locator('[data-running]')).toBeVisible();
  await page.clock.fastForward('00:40:00');
  await expect(here(page).locator('[data-running]')).toContainText('of 45 min');
  await here(page).getByRole('button', { name: 'Passed', exact: true }).click();
  await expect(page.locator('[data-kind=hop]').first()).toHaveAttribute('data-state', 'passed');
  well.arrive('5');
  expect(await read(page, well)).toContain('1 as they are');

  // The slow one: slow is normal, longer than careful is not.
  await openSheet(page, slow.name);
  await here(page).getByRole('button', { name: 'Start', exact: true }).click();
  await expect(here(page).locator('[data-running]')).toBeVisible();
  await page.clock.fastForward('01:40:00');
  await expect(here(page).locator('[data-running]')).toContainText('slow, but normal');
  await page.clock.fastForward('01:30:00');
  await expect(here(page).locator('[data-running]')).toContainText('longer than the careful 3 h');
  await here(page).getByRole('button', { name: 'Passed', exact: true }).click();
  await expect(page.locator('[data-kind=hop]').first()).toHaveAttribute('data-state', 'passed');
  slow.arrive('8');
  expect(await read(page, slow)).toContain('1 as they are');

  // The one that fails stays where it was; the plan goes on from there.
  await openSheet(page, bad.name);
  await here(page).getByRole('button', { name: 'Start', exact: true }).click();
  await page.clock.fastForward('00:20:00');
  await here(page).getByLabel('Note').fill('stopped, and rolled itself back');
  await here(page).getByRole('button', { name: 'Failed', exact: true }).click();
  await expect(page.locator('[data-kind=hop]').first()).toHaveAttribute('data-state', 'failed');
  await expect(page.locator('[data-kind=hop]').first()).toContainText('rolled itself back');
  const said = await read(page, bad);
  expect(said).toContain('Garnock Desk, 3, r5, Plain');
  expect(said).not.toContain('release:');
  await openSheet(page, bad.name);
  const failed = page.locator('[data-failed]');
  await failed.getByRole('button', { name: 'Bar it for this system' }).click();
  await expect(failed.locator('[data-anew]')).toBeVisible();
  await failed.getByRole('button', { name: 'Make its worksheet anew' }).click();
  await expect(page.locator('[data-standing]')).toContainText('0 of');

  // A machine that does not say what its worksheet says is found out.
  slow.arrive('7');
  expect(await read(page, slow)).toContain('1 changed');

  // What the leader reads, and what the morning gets.
  await page.goto('/worksheet');
  const night = page.locator('[data-night]');
  await expect(night).toContainText('clock-01 to 8: passed, 3 h 10 min (careful 3 h)');
  await expect(night).toContainText('west-04 to 4 Plain: failed, 20 min');
  await expect(night).toContainText('stopped, and rolled itself back');
  const file = page.waitForEvent('download');
  await night.getByRole('button', { name: 'Take out the report' }).click();
  const report = readFileSync(await (await file).path(), 'utf8');
  expect(report).toContain('1 with something failed');
  expect(report).toContain('draw-01 to 5');
  // And what the next plan may learn of it.
  const seen = page.locator('[data-experience] tr', { hasText: 'the hop from 6 to 8' });
  await expect(seen).toContainText('seen once: 3 h 10 min; predicted 60 min, careful 3 h');
  await expect(page.locator('[data-experience] tr', { hasText: 'the hop from 3 to 4' })).toContainText(
    'failed once'
  );
  await seen.getByRole('button', { name: 'State it in the catalogue' }).click();
  await expect(page.getByRole('button', { name: 'Keep the changes' })).toBeVisible();
  await page.getByRole('button', { name: 'Keep the changes' }).click();
  await expect(page.getByRole('button', { name: 'Keep the changes' })).toHaveCount(0);
  // Stated once, it stands beside what the publisher says in the text.
  const text = page.waitForEvent('download');
  await page.goto('/estate/workspaces');
  await page.getByRole('button', { name: 'Take out as a file' }).click();
  const workspace = readFileSync(await (await text).path(), 'utf8');
  expect(workspace.match(/source: own-experience/g)?.length).toBe(1);
});
