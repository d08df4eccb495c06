import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, expectAccessible, follow, kept, openDemo, planned, test } from './desk';

/** The folder a person would choose is one of the page's own here: browsers without a screen have no dialog to choose in. */
const chooseOwnFolder = (): void => {
  Object.assign(window, {
    showDirectoryPicker: async () =>
      (await navigator.storage.getDirectory()).getDirectoryHandle('back-ups', { create: true })
  });
};

/** Names and texts in the folder. */
const folder = async (): Promise<Record<string, string>> => {
  const back = await (
    await navigator.storage.getDirectory()
  ).getDirectoryHandle('back-ups', { create: true });
  const found: Record<string, string> = {};
  for await (const [name, entry] of (
    back as unknown as { entries(): AsyncIterable<[string, FileSystemFileHandle]> }
  ).entries())
    found[name] = await (await entry.getFile()).text();
  return found;
};

/** Waits until there are so many files; one may go while they are read. */
const holds = (page: Page, files: number): Promise<void> =>
  expect(async () => expect(Object.keys(await page.evaluate(folder))).toHaveLength(files)).toPass();

test('backed up by itself into a folder: dated, with what changed, once an hour, and opened again', async ({
  page
}) => {
  await page.addInitScript(chooseOwnFolder);
  await page.clock.install({ time: new Date('2031-03-10T08:00:00Z') });
  await openDemo(page);
  await page.goto('/estate/workspaces');
  await page.getByRole('button', { name: 'Choose a folder…' }).click();
  await expect(page.locator('[data-back-up]')).toHaveCount(1);
  const first = await page.evaluate(folder);
  expect(Object.keys(first).sort()).toEqual([
    expect.stringMatching(/^Saltmarsh Valley Tramways 2031-03-10 08\d{4} changes\.txt$/),
    expect.stringMatching(/^Saltmarsh Valley Tramways 2031-03-10 08\d{4}\.json$/)
  ]);
  await expectAccessible(page);
  // What is edited within the hour waits for its end.
  await page.goto('/estate/system?at=draw-01');
  await page.locator('#system-note').fill('oiled');
  await page.locator('#system-note').press('Tab');
  await kept(page);
  await page.clock.runFor(20 * 60_000);
  expect(Object.keys(await page.evaluate(folder))).toHaveLength(2);
  await page.clock.runFor(45 * 60_000);
  await holds(page, 4);
  // Nothing changes: nothing is written, over a reload either.
  await page.clock.runFor(3 * 3_600_000);
  await page.goto('/estate/workspaces');
  await expect(page.locator('[data-back-up]')).toHaveCount(2);
  await page.clock.runFor(3 * 3_600_000);
  const files = await page.evaluate(folder);
  expect(Object.keys(files)).toHaveLength(4);
  const [said] = Object.entries(files).filter(([name]) => name.endsWith('changes.txt') && !(name in first));
  expect(said?.[1]).toMatch(/^Changed since Saltmarsh.*\n- .*draw-01/);
  expect(said?.[1].split('\n').filter((l) => l.startsWith('-'))).toHaveLength(1);
  const text = files[said?.[0].replace(' changes.txt', '.json') ?? ''] ?? '';
  const back = JSON.parse(text) as { systems: { id: string; note?: string }[] };
  expect(back.systems.find((s) => s.id === 'draw-01')?.note).toBe('oiled');
  // Undo is a change as well.
  await page.keyboard.press('Control+z');
  await page.clock.runFor(65 * 60_000);
  await holds(page, 6);
  // An old one is opened beside this one.
  await page.locator('[data-back-up]').nth(1).getByRole('button', { name: 'Open beside this one' }).click();
  await planned(page);
  await page.goto('/estate/system?at=draw-01');
  await expect(page.locator('#system-note')).toHaveValue('oiled');
});

test('only so many back-ups stay, a folder that is gone is told, and without a folder they are downloaded', async ({
  page
}) => {
  await page.addInitScript(chooseOwnFolder);
  await openDemo(page);
  await page.goto('/estate/workspaces');
  await page.getByRole('button', { name: 'Choose a folder…' }).click();
  await expect(page.locator('[data-back-up]')).toHaveCount(1);
  const [oldest] = Object.keys(await page.evaluate(folder));
  const began = await page.evaluate(() => Date.now());
  for (let n = 2; n <= 22; n++) {
    // Their names tell seconds.
    await page.clock.setFixedTime(began + n * 1000);
    await page.getByRole('button', { name: 'Back up now' }).click();
    await expect(page.locator('[data-back-up]')).toHaveCount(Math.min(n, 20));
  }
  await holds(page, 40);
  expect(Object.keys(await page.evaluate(folder))).not.toContain(oldest);
  await page.evaluate(async () =>
    (await navigator.storage.getDirectory()).removeEntry('back-ups', { recursive: true })
  );
  await page.getByRole('button', { name: 'Back up now' }).click();
  await expect(page.getByRole('alert')).toContainText('The folder is not there any more');
  const file = page.waitForEvent('download');
  await page.getByRole('button', { name: 'By download instead' }).click();
  expect((await file).suggestedFilename()).toMatch(/^Saltmarsh Valley Tramways \d{4}-\d\d-\d\d \d{6}\.json$/);
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByText('Nothing is. A dated file')).toBeVisible();
});

test('what the browser has let go of is told, with what to do; what somebody took off is not', async ({
  page
}) => {
  await openDemo(page);
  await kept(page);
  await page.evaluate(
    () =>
      new Promise<void>((done, fail) => {
        const request = indexedDB.deleteDatabase('orange-stair');
        request.onsuccess = () => done();
        request.onerror = () => fail(new Error('not deleted'));
      })
  );
  await page.goto('/estate');
  await expect(page.getByRole('heading', { name: 'What was here is gone' })).toBeVisible();
  await expect(page.getByRole('alert')).toContainText('262 systems stood on this desk on');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Open the demo' }).click();
  await planned(page);
  await page.goto('/estate/workspaces');
  await page.getByRole('button', { name: 'Start over…' }).click();
  await page.getByRole('button', { name: 'Start over', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Nothing is on the desk yet' })).toBeVisible();
  await page.goto(page.url());
  await expect(page.getByRole('heading', { name: 'Nothing is on the desk yet' })).toBeVisible();
});

test('help is the docs’ own: of each place first what is on the screen, all of it found by its words', async ({
  page
}) => {
  await openDemo(page);
  const FIRST = [
    ['/estate', 'Estate: what is installed'],
    ['/estate/systems', 'The grid of systems'],
    ['/stair?at=draw-01', 'Stair: where one machine can go'],
    ['/ready', 'Ready: what stands in the way'],
    ['/rights', 'Rights: what may be done'],
    ['/dates', 'Dates: what is due'],
    ['/order', 'Order: what goes first'],
    ['/worksheet', 'Worksheet: the list'],
    ['/catalogue', 'Catalogue: what the publishers say'],
    ['/import', 'Bringing in']
  ] as const;
  for (const [path, title] of FIRST) {
    await page.goto(path);
    await expect(page.locator('main')).not.toContainText(/^Reading what is stored/);
    await expect(page.locator('main')).not.toBeEmpty();
    await page.keyboard.press('h');
    await expect(page.locator('[data-chapter]').first()).toContainText(title);
    await page.keyboard.press('Escape');
    await expect(page.locator('[data-chapter]')).toHaveCount(0);
  }
  const find = page.getByRole('searchbox', { name: 'Find in the help' });
  // What is just going away is not brought back by the same key.
  await expect(async () => {
    await page.keyboard.press('h');
    await expect(find).toBeVisible({ timeout: 2000 });
  }).toPass();
  await find.fill('pool');
  await expect(page.locator('[data-chapter]').first()).toContainText('Rights: what may be done');
  await find.fill('unknown');
  await expect(page.locator('[data-chapter]').filter({ hasText: 'conditions' }).first()).toBeVisible();
  await find.fill('xyzzy');
  await expect(page.getByText('Nothing in the help says that')).toBeVisible();
  await expectAccessible(page);
});

test('shown round: one question of the demo in five steps, by keyboard, left at any of them, beside one’s own desk', async ({
  page
}) => {
  await page.goto('/estate');
  await page.getByRole('button', { name: 'Be shown round with it' }).press('Enter');
  const card = page.getByRole('region', { name: 'Shown round' });
  await planned(page);
  await expect(page.locator('[data-case="draw-01"].framed')).toBeVisible();
  await expectAccessible(page);
  for (const [step, path] of [
    [2, '/stair'],
    [3, '/stair'],
    [4, '/ready'],
    [5, '/worksheet']
  ] as const) {
    await card.getByRole('button', { name: 'Next' }).press('Enter');
    await expect(card).toContainText(`${step} of 5`);
    await expect(page).toHaveURL(new RegExp(`${path}(\\?|$)`));
    await expect(page.locator('.framed')).toHaveCount(1);
  }
  await card.getByRole('button', { name: 'Back' }).press('Enter');
  await expect(card).toContainText('4 of 5');
  // It outlives a reload, and one can work beside it.
  await page.goto(page.url());
  await expect(card).toContainText('4 of 5');
  await card.getByRole('button', { name: 'Leave' }).press('Enter');
  await expect(card).toHaveCount(0);
  await expect(page.locator('.framed')).toHaveCount(0);
  // Asked for anywhere it begins where it begins.
  await page.keyboard.press('.');
  await page.keyboard.type('be shown');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/estate$/);
  await expect(page.locator('[data-case="draw-01"].framed')).toBeVisible();
  await card.getByRole('button', { name: 'Leave' }).press('Enter');
  // Beside what somebody has: a workspace of its own.
  await page.goto('/estate/workspaces');
  await page.getByRole('textbox', { name: 'Name of a new workspace' }).fill('Mine');
  await page.getByRole('button', { name: 'Make an empty one and open it' }).click();
  await page.waitForURL('**/estate');
  await page.getByRole('link', { name: 'Bring in a list' }).click();
  await page.getByLabel(/Or paste/).fill('name\tos\nmine-1\tBrindle Server 8');
  await page.getByRole('button', { name: 'Read what is pasted' }).click();
  await page.getByRole('button', { name: 'Take in 1 system' }).click();
  await kept(page);
  await page.keyboard.press('.');
  await page.keyboard.type('be shown');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-case="draw-01"].framed')).toBeVisible();
  await expect(page.locator('header')).toContainText('The demo');
  await page.goto('/estate/workspaces');
  await expect(page.locator('[data-workspace]')).toHaveCount(3);
});

/** What each place takes out as a table, by its button. */
const TABLES = [
  ['/ready/fetch', 'Take out as CSV'],
  ['/dates', 'Take out as CSV'],
  ['/order', 'Take out as CSV'],
  ['/rights/waiting', 'Take out as CSV']
] as const;

for (const [locale, day, hop, group] of [
  ['en-US', 'Mar 10, 2031', 'Mar 11', ','],
  ['de-DE', '10 Mar 2031', '11 Mar', '.']
] as const)
  test.describe(locale, () => {
    test.use({ locale });
    test('days and figures are written as the reader writes them, and alike for all in files', async ({
      page
    }) => {
      await openDemo(page);
      await expect(page.getByRole('button', { name: 'as of' })).toContainText(day);
      await follow(page, '/stair?at=draw-01');
      await expect(page.locator('svg.stair').getByText(hop, { exact: true })).toBeVisible();
      await page.goto('/estate/workspaces');
      // What is left of the disk is not known beforehand, its grouping is.
      await expect(page.locator('[data-keeping] .lead')).toContainText(
        new RegExp(`of \\d{1,3}(\\${group}\\d{3})+ MB`)
      );
      for (const [path, button] of TABLES) {
        await follow(page, path);
        await expect(page).toHaveURL(new RegExp(`${path}$`));
        const file = page.waitForEvent('download');
        await page.getByRole('button', { name: button }).click();
        const text = readFileSync(await (await file).path(), 'utf8');
        expect(text, path).toMatch(/\d{4}-\d\d-\d\d/);
        expect(text, path).not.toMatch(/[A-Z][a-z]{2} \d{1,2}, \d{4}|\d\.\d{3},\d\d/);
      }
    });
  });
