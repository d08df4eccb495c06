import { readFileSync } from 'node:fs';
import type { Locator, Page } from '@playwright/test';
import {
  expect,
  expectAccessible,
  follow,
  giveFile,
  kept,
  openDemo,
  openLaws,
  planned,
  row,
  test
} from './desk';
import { isQuick } from '../support/laws';

const yaml = readFileSync('demo/catalogue.yaml', 'utf8');

/** Counts what a person does: a press of the mouse or of a key is one, and so is pasting a block. */
class Hands {
  count = 0;
  pasted = 0;

  async click(target: Locator): Promise<void> {
    this.count++;
    await target.click();
  }

  async paste(target: Locator, text: string): Promise<void> {
    this.count++;
    this.pasted++;
    await target.fill(text);
  }

  async type(target: Locator, text: string): Promise<void> {
    this.count += text.length;
    await target.fill(text);
    await target.blur();
  }
}

const PRODUCTS = ['Kestrel panel', 'Lamp desk', 'Tide gauge', 'Gatehouse', 'Moorland scan', 'Osprey link'];

/** Forty machines of six products, as a sheet has them, and the publishers' dates in four of the usual forms. */
function sheet(): { machines: string; dates: string } {
  const machines = Array.from(
    { length: 40 },
    (_, i) =>
      `m-${i}\t${PRODUCTS[i % 6]} ${['2.9', '2.10', '3'][i % 3 === 0 ? 0 : i % 7 === 0 ? 2 : 1]}\tTeam ${i % 4}`
  );
  const dates = PRODUCTS.flatMap((p, i) => [
    `${p} 2.9\t13.0${i + 1}.2023\t30.06.2027`,
    `${p} 2.10\tMar 2024\t2028-0${i + 1}`,
    `${p} 3\t2025-02-0${i + 1}\tQ${(i % 4) + 1} 2030`,
    `${p} 4\t1 June 2026\t2033`
  ]);
  return {
    machines: ['name\tos\tteam', ...machines].join('\n'),
    dates: ['Release\tOut\tServed until', ...dates].join('\n')
  };
}

async function openCatalogue(page: Page, query: string): Promise<void> {
  await openDemo(page);
  await follow(page, `/catalogue?${query}`);
  await expect(page.getByRole('tablist', { name: 'Views of the catalogue' })).toBeVisible();
}

/** The desk shown as of a day, so that no clock decides. */
async function asOf(page: Page, day: string): Promise<void> {
  await page.getByRole('button', { name: /as of/ }).click();
  await page.getByLabel('Day', { exact: true }).fill(day);
  await page.getByRole('button', { name: 'Plan as of this day' }).click();
}

test('forty machines of six unknown products: from a sheet to verdicts in few actions', async ({ page }) => {
  const { machines, dates } = sheet();
  const hands = new Hands();
  await page.goto('/import');
  await hands.paste(page.getByLabel(/Or paste/), machines);
  await hands.click(page.getByRole('button', { name: 'Read what is pasted' }));
  await hands.click(page.getByRole('button', { name: 'Take in 40 systems' }));
  await planned(page);
  await expect(row(page, 'm-0')).toContainText('cannot tell');
  await hands.click(page.getByRole('link', { name: '40 systems of no product yet' }));
  await hands.paste(page.getByLabel('Table of dates'), dates);
  await hands.click(page.getByRole('button', { name: 'Take 24 lines' }));
  await expect(page.locator('[data-sketch]')).toBeVisible();
  for (const name of PRODUCTS)
    await expect(page.getByRole('button', { name: `${name} 4 releases, 4 dated, 0 hops` })).toBeVisible();
  await hands.click(page.getByRole('button', { name: 'All: each to the next' }));
  // One product may skip a release, another needs a fresh install for it: a cell turns at a press.
  await hands.click(page.getByRole('button', { name: /^Lamp desk/ }));
  await hands.click(page.locator('[data-hop="2.9>3"]'));
  await hands.click(page.getByRole('button', { name: /^Gatehouse/ }));
  await hands.click(page.locator('[data-hop="3>4"]'));
  await hands.type(page.getByLabel('4 served until'), '30.6.2034');
  await hands.click(page.getByRole('button', { name: 'Make them and plan' }));
  await planned(page);
  console.log(`actions: ${hands.count}, of them ${hands.pasted} pasting`);
  expect(hands.count).toBeLessThanOrEqual(250);

  await asOf(page, '2026-11-23');
  await planned(page);
  await expect(page.getByText('cannot tell', { exact: true })).toHaveCount(0);
  await expect(row(page, 'm-0')).toContainText('30 Jun 2027');
  await row(page, 'm-0').click();
  await expect(page.locator('[data-verdict]')).toContainText('Kestrel panel 4: by 3 hops');
  await page.goto('/stair?at=m-1');
  await expect(page.locator('[data-verdict]')).toContainText('Lamp desk 4: by 2 hops');
  await page.goto('/stair?at=m-3');
  await expect(page.locator('[data-verdict]')).toContainText(/Gatehouse 4 only .*fresh|fresh install/);
  // All of it is one change: as of the day, then the products.
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Undone: Planning as of')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Undone: Made')).toBeVisible();
  await page.goto('/estate');
  await expect(page.getByRole('link', { name: '40 systems of no product yet' })).toBeVisible();
});

test('what is sketched outlives a reload; a wrong order is put right by keyboard', async ({ page }) => {
  await page.goto('/import');
  await page.getByLabel(/Or paste/).fill('name\tos\na\tBox beta\nb\tBox 7\nc\tBox 10');
  await page.getByRole('button', { name: 'Read what is pasted' }).click();
  await page.getByRole('button', { name: /Take in 3/ }).click();
  await expect(page.getByText(/^Took in 3 /)).toBeVisible();
  await page.goto('/catalogue/start');
  await page.getByRole('button', { name: /^Box 2 releases/ }).click();
  await page.getByLabel('10 served until').fill('3/4/2031');
  await kept(page);
  // Asked in the same breath as the key: a quarter of a second later it is kept.
  const asks = await page.getByLabel('10 served until').evaluate((field) => {
    field.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown', altKey: true, bubbles: true }));
    return !window.dispatchEvent(new Event('beforeunload', { cancelable: true }));
  });
  expect(asks).toBe(true);
  await expect(page.locator('[data-sketch="Box"] tbody tr').first()).toHaveAttribute('data-release', '7');
  await page.getByLabel('7 served until').fill('whenever');
  await page.getByLabel('7 served until').press('Enter');
  await expect(page.getByRole('alert')).toContainText('“whenever” is not a date');
  await kept(page);
  await page.reload();
  await page.getByRole('button', { name: /^Box 2 releases/ }).click();
  await expect(page.getByLabel('10 served until')).toHaveValue('2031-04-03');
  await expect(page.locator('[data-sketch="Box"] tbody tr').first()).toHaveAttribute('data-release', '7');
});

test(
  'a cell is changed: the verdicts that would change are named, and only that line of the text',
  { tag: '@quick' },
  async ({ page }) => {
    await openLaws(page);
    await follow(page, '/catalogue?product=garnock-desk&view=table');
    await page.locator('[data-cell="4>5"]').click();
    await expect(page.locator('[data-panel="cell"]')).toContainText(
      isQuick ? '3 systems on 4' : '48 systems on 4'
    );
    const levels = page.locator('[data-entry="desk-4-5"]').getByLabel('levels');
    await levels.fill('from 44/r2');
    await levels.press('Enter');
    await expect(page.getByRole('alert')).toContainText('There is no release or patch level "44/r2"');
    await levels.fill('from 4/r1');
    await levels.press('Enter');
    await expect(page.locator('[data-changes]')).toContainText(
      isQuick ? /^No verdict would change/ : 'No verdict would change; 22 systems would keep theirs'
    );
    await page.locator('[data-entry="desk-4-5"]').getByRole('button', { name: 'Take away' }).last().click();
    await expect(page.locator('[data-changes]')).toContainText('verdicts would change');
    await expect(page.locator('[data-cell="4>5"]')).not.toContainText('in place');
    await page.keyboard.press('Control+z');
    await expect(page.locator('[data-cell="4>5"]')).toContainText('in place, 4 r1 or later');
    await kept(page);
    await page.reload();
    await expect(page.locator('[data-cell="4>5"]')).toContainText('in place, 4 r1 or later');
    await page.getByRole('button', { name: 'Keep the changes' }).click();
    await expect(page.getByRole('heading', { name: 'Not kept yet' })).toHaveCount(0);
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Take out' }).click()
    ]);
    expect(readFileSync(await download.path(), 'utf8')).toBe(
      yaml.replace('to: "5"\n        levels: from 4/r2', 'to: "5"\n        levels: from 4/r1')
    );
    await follow(page, '/stair?at=draw-01');
    await expect(page.locator('[data-verdict]')).toContainText('Garnock Desk 6 Bureau: by 3 hops');
    await expect(page.getByText('Patch to r2')).toHaveCount(0);
    await page.keyboard.press('Control+z');
    await expect(page.getByText('Patch to r2')).toBeVisible();
  }
);

test('by keyboard alone: to an empty cell, what it means, a hop in it', async ({ page }) => {
  await openCatalogue(page, 'product=ossian-shelf&view=table');
  await page.locator('[data-cell="31.2>31.4"]').focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-panel="cell"]')).toContainText(
    'Unknown: nothing is recorded, and the table is partial'
  );
  await page.getByRole('button', { name: 'Add a hop in place' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-cell="31.2>31.5"]')).toContainText('in place');
  await page.locator('[data-cell="31.4>31.5e"]').click();
  await page.locator('[data-cell="31.2>31.6"]').click();
  await expect(page.locator('[data-panel="cell"]')).toContainText('Forbidden: The dealer says so');
  await page.getByRole('button', { name: 'It is not known to be forbidden' }).press('Enter');
  await expect(page.locator('[data-cell="31.2>31.6"]')).toContainText('?');
  await page.getByRole('button', { name: 'The table is complete' }).press('Enter');
  await expect(page.locator('[data-cell="31.2>31.6"]')).toContainText('no');
  await page.getByRole('button', { name: 'Drop all' }).press('Enter');
  await expect(page.locator('[data-cell="31.2>31.6"]')).toContainText('no');
  await expect(page.locator('[data-cell="31.2>31.5"]')).toContainText('?');
});

test('a new release is made after the likeness of the last, and dated on the calendar', async ({ page }) => {
  await openCatalogue(page, 'product=brindle-server&view=calendar');
  await page.getByRole('button', { name: 'New release after the likeness of the last' }).click();
  await expect(page.locator('[data-release="11"]')).toContainText('end not known');
  await page.locator('[data-entry="11"]').getByLabel('published').fill('announced 2032-Q2');
  await page.locator('[data-entry="11"]').getByLabel('published').press('Enter');
  await page.getByRole('tab', { name: 'Table' }).click();
  await expect(page.locator('[data-cell="10>11"]')).toContainText('in place');
});

test('a catalogue written by hand from nothing: a product, its name, a release, undone step by step', async ({
  page
}) => {
  await page.goto('/catalogue');
  await page.getByRole('button', { name: 'Write one by hand' }).click();
  const name = page.locator('[data-entry="new-product"]').getByLabel('name');
  await name.fill('Quay crane');
  await name.press('Enter');
  await expect(page.getByRole('heading', { name: 'Quay crane', exact: true })).toBeVisible();
  await page.getByRole('tab', { name: 'Calendar' }).click();
  await page.getByRole('button', { name: 'New release after the likeness of the last' }).click();
  await expect(page.locator('[data-release="2"]')).toBeVisible();
  await page.getByRole('button', { name: 'Keep the changes' }).click();
  await expect(page.getByRole('heading', { name: 'Not kept yet' })).toHaveCount(0);
  await page.reload();
  await expect(page.locator('[data-release="2"]')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('heading', { name: 'No catalogue yet' })).toBeVisible();
});

test('what is begun counts for nothing until something is said of it, and goes at a press', async ({
  page
}) => {
  await page.goto('/catalogue');
  await page.getByRole('button', { name: 'Write one by hand' }).click();
  await page.getByRole('button', { name: 'Keep the changes' }).click();
  const draft = page.getByRole('heading', { name: 'Not kept yet' });
  await expect(draft).toHaveCount(0);
  await page.getByRole('tab', { name: 'Demands' }).click();
  const begin = page.getByRole('button', { name: 'Add a requirement' });
  const form = page.locator('[data-entry="requirement"]');
  await begin.click();
  await form.getByLabel('needs').fill('enough of everything');
  await form.getByLabel('needs').press('Enter');
  await expect(form.getByRole('alert')).toContainText('Not changed.');
  await expect(draft).toHaveCount(0);
  await form.getByRole('button', { name: 'Take away' }).click();
  await expect(page.locator('[data-open^="requirements/"]')).toHaveCount(0);
  await begin.click();
  await form.getByLabel('needs').fill('memory at least 4 GB');
  await form.getByLabel('needs').press('Enter');
  await expect(draft).toBeVisible();
  await form.getByRole('button', { name: 'Take away' }).click();
  await expect(page.locator('[data-open^="requirements/"]')).toHaveCount(0);
  await expect(form).toHaveCount(0);
});

test('a version a known product does not list is listed at a press', async ({ page }) => {
  await openDemo(page);
  await page.goto('/import');
  await page.getByLabel(/Or paste/).fill('name\tproduct\tversion\nnew-1\tBrindle Server\t11');
  await page.getByRole('button', { name: 'Read what is pasted' }).click();
  await page.getByRole('button', { name: /Take in 1/ }).click();
  await expect(page.getByText(/^Took in 1 /)).toBeVisible();
  await page.goto('/catalogue?product=brindle-server&view=calendar');
  await page.getByRole('button', { name: /^List “Brindle Server 11”, which 1 machine runs/ }).click();
  await expect(page.locator('[data-release="11"]')).toBeVisible();
  await page.getByRole('button', { name: 'Keep the changes' }).click();
  await expect(page.locator('[data-release="11"]')).toContainText('1 installed');
});

test('the text: a fault is shown where it is, words are completed, the table follows', async ({ page }) => {
  await openCatalogue(page, 'product=garnock-desk&view=text');
  const text = page.getByLabel('Text of the catalogue');
  await text.click();
  await page.keyboard.press('Control+Home');
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowDown');
  await page.keyboard.press('End');
  await page.keyboard.type(': x');
  await expect(page.getByRole('alert')).toContainText('line 5');
  for (let i = 0; i < 3; i++) await page.keyboard.press('Backspace');
  await expect(page.getByText('The text cannot be read.')).toHaveCount(0);
  await page.keyboard.type(' two');
  await expect(page.getByRole('heading', { name: 'Saltmarsh demo catalogue two' })).toBeVisible();
  await page.keyboard.press('Enter');
  await page.keyboard.type('fac');
  await expect(page.locator('.cm-tooltip-autocomplete')).toHaveCount(0);
  await page.keyboard.press('Backspace');
  await page.keyboard.press('Backspace');
  await page.keyboard.press('Backspace');
  await page.keyboard.press('Backspace');
  await page.keyboard.press('Control+End');
  await page.keyboard.press('Enter');
  await page.keyboard.type('    trac');
  await expect(page.locator('.cm-tooltip-autocomplete')).toContainText('tracks');
  await page.getByRole('button', { name: 'Drop all' }).click();
  await expect(page.getByRole('heading', { name: 'Saltmarsh demo catalogue', exact: true })).toBeVisible();
});

test('what is amiss: a mend at a press, a ruling on what is stated two ways, taken back by undo', async ({
  page
}) => {
  await openCatalogue(page, 'view=amiss');
  await page
    .locator('[data-finding="stale-source"]')
    .getByRole('button', { name: 'It was read again today' })
    .click();
  await expect(page.locator('[data-finding="stale-source"]')).toHaveCount(0);
  await page.getByRole('button', { name: 'Drop all' }).click();
  await expect(page.locator('[data-finding="stale-source"]')).toHaveCount(1);
  // The demo has ruled already.
  await page.getByRole('button', { name: 'Take the ruling back' }).click();
  await page
    .locator('[data-finding="disputed"]')
    .getByRole('button', { name: 'Let “Own test on two terminals” hold' })
    .click();
  await expect(page.getByText('Own test on two terminals holds, since 10 Mar 2031')).toBeVisible();
  await expect(page.locator('[data-finding="disputed"]')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('[data-finding="disputed"]')).toHaveCount(1);
  await page.locator('[data-finding="edition-hole"]').getByRole('button', { name: 'Show' }).click();
  await expect(page.locator('[data-entry="desk-3-5"]')).toBeVisible();
});

test('a received catalogue is joined: both statements stay, and the plan says what it rests on', async ({
  page
}) => {
  await openCatalogue(page, 'view=table');
  await page.goto('/import');
  const received = yaml
    .replace('to: "5"\n        levels: from 4/r2', 'to: "5"\n        levels: from 4/r1')
    .replace(/(id: desk-4-5[\s\S]*?)source: gw-table/, '$1source: garnock-parts');
  await giveFile(page, 'from a colleague.yaml', received);
  await page.getByRole('button', { name: 'Join it with the one here' }).click();
  await expect(page.getByText('1 entry stated differently, both kept')).toBeVisible();
  await expect(page.locator('[data-finding="disputed"]')).toHaveCount(1);
  await expect(page.locator('[data-changes]')).toContainText('verdicts would change');
  await page.getByRole('button', { name: 'Keep the changes' }).click();
  await expect(page.getByRole('heading', { name: 'Not kept yet' })).toHaveCount(0);
  await page
    .locator('[data-finding="disputed"]')
    .filter({ hasText: 'the hop from 4 to 5' })
    .getByRole('button', { name: 'Let “Which line leads to which” hold' })
    .click();
  await expect(page.getByText('Which line leads to which holds, since')).toBeVisible();
  await page.goto('/stair?at=draw-01');
  await expect(page.locator('[data-rests]')).toContainText(
    'the hop from 4 to 5: by your ruling “Which line leads to which” holds'
  );
});

test('every view of the catalogue is accessible', async ({ page }) => {
  test.slow();
  await openCatalogue(page, 'product=garnock-desk');
  for (const view of ['table', 'calendar', 'demands', 'terms', 'sources', 'text', 'amiss']) {
    await page.goto(`/catalogue?product=garnock-desk&view=${view}`);
    await expect(page.locator('article')).toBeVisible();
    if (view === 'table') await page.locator('[data-cell="4>5"]').click();
    if (view === 'text') await expect(page.getByLabel('Text of the catalogue')).toBeVisible();
    await expectAccessible(page, 'best-practice');
  }
  await page.goto('/catalogue/start');
  await expect(page.locator('[data-sketch]')).toBeVisible();
  await expectAccessible(page, 'best-practice');
});
