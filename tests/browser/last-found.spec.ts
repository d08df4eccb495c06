import { createHash } from 'node:crypto';
import { chromium, type BrowserContext, type Page } from '@playwright/test';
import { expect, follow, kept, openDemo, planned, row, test } from './desk';

/** What was found last, as this browser keeps it: kinds, by what they are of. */
const foundIn = (page: Page): Promise<string[]> =>
  page.evaluate(
    () =>
      new Promise<string[]>((done) => {
        const request = indexedDB.open('orange-stair found');
        request.onsuccess = () => {
          const read = request.result.transaction('of').objectStore('of').getAll();
          read.onsuccess = () => {
            request.result.close();
            done((read.result as { key: string; of: string }[]).map((f) => `${f.key}: ${f.of}`).sort());
          };
        };
      })
  );

/** Waits until another plan than those is kept; what is kept then. */
async function anotherKept(page: Page, before: readonly string[] = []): Promise<string[]> {
  const plan = (list: readonly string[]): string => list.find((f) => f.startsWith('first plan')) ?? '';
  await expect.poll(async () => plan(await foundIn(page))).not.toBe(plan(before));
  return foundIn(page);
}

/** Workers of pages opened from now on do not begin before they are let. */
async function holdWorkers(context: BrowserContext): Promise<() => void> {
  let letGo: () => void = () => undefined;
  const held = new Promise<void>((done) => (letGo = done));
  await context.route(/core\.worker/, async (route) => {
    await held;
    await route.continue();
  });
  return () => letGo();
}

/** The first rows: a screen of them, whatever else stands on it. */
const rows = async (page: Page): Promise<string[]> =>
  (await page.locator('[data-case]').allInnerTexts()).slice(0, 6);
const looked = (page: Page) => page.locator('[data-looked="true"]');
const planning = (page: Page) => page.getByText(/^Planning/);

test('what was planned is there as soon as the page is, planned anew behind it, and is the same', async ({
  page,
  context
}) => {
  await openDemo(page);
  const shown = await rows(page);
  await follow(page, '/ready');
  await expect(looked(page)).toHaveCount(1);
  const inTheWay = await page.locator('main').innerText();
  await anotherKept(page);
  expect((await foundIn(page)).map((f) => f.split(':')[0])).toEqual([
    'first catalogue',
    'first plan',
    'first ready'
  ]);
  const letGo = await holdWorkers(context);
  await page.goto('/estate');
  await expect(row(page, 'draw-01')).toBeVisible();
  await expect(planning(page)).toBeVisible();
  expect(await rows(page)).toEqual(shown);
  await follow(page, '/ready');
  await expect(looked(page)).toHaveCount(1);
  await expect(planning(page)).toBeVisible();
  expect(await page.locator('main').innerText()).toBe(inTheWay);
  letGo();
  await expect(planning(page)).toHaveCount(0);
  await expect(page.getByText(/^Looking again/)).toHaveCount(0);
  await expect(looked(page)).toHaveCount(1);
  expect(await page.locator('main').innerText()).toBe(inTheWay);
  await follow(page, '/estate');
  await planned(page);
  expect(await rows(page)).toEqual(shown);
});

test('what was planned before a change is not shown behind it, whoever has made it', async ({
  page,
  context
}) => {
  await openDemo(page);
  const demo = await anotherKept(page);
  await page.goto('/estate/system?at=draw-01');
  await page.locator('#system-note').fill('in the tower');
  await page.locator('#system-note').press('Tab');
  await kept(page);
  const noted = await anotherKept(page, demo);
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('ControlOrMeta+z');
  const takenBack = await anotherKept(page, noted);
  await page.keyboard.press('ControlOrMeta+Shift+z');
  await anotherKept(page, takenBack);
  expect(await foundIn(page)).toEqual(noted);
  // A tab that cannot plan changes something: what the other tab keeps is not of that.
  const letGo = await holdWorkers(context);
  const other = await context.newPage();
  await other.goto('/estate/system?at=draw-01');
  await other.locator('#system-note').fill('in the cellar');
  await other.locator('#system-note').press('Tab');
  await kept(other);
  await other.goto('/estate');
  await expect(planning(other)).toBeVisible();
  await other.evaluate(async () => {
    for (let frame = 0; frame < 60; frame++) await new Promise(requestAnimationFrame);
  });
  await expect(other.locator('[data-case]')).toHaveCount(0);
  expect(await foundIn(other)).toEqual(noted);
  letGo();
  await planned(other);
});

test('where what is stored is gone, what was found of it is as well', async ({ page }) => {
  await openDemo(page);
  await anotherKept(page);
  await page.evaluate(
    () =>
      new Promise<void>((done) => {
        const request = indexedDB.deleteDatabase('orange-stair');
        request.onsuccess = () => done();
      })
  );
  await page.goto('/estate');
  await expect(page.getByRole('heading', { name: 'What was here is gone' })).toBeVisible();
  expect(await foundIn(page)).toEqual([]);
});

test('where there is no room for a change, what was found gives way to it', async ({ page }) => {
  await openDemo(page);
  await anotherKept(page);
  await page.goto('/estate/system?at=draw-01');
  await expect(planning(page)).toHaveCount(0);
  await page.evaluate(() => {
    const { put } = IDBObjectStore.prototype;
    let isFull = true;
    IDBObjectStore.prototype.put = function (...given: Parameters<typeof put>) {
      if (isFull && this.transaction.db.name === 'orange-stair')
        throw new DOMException('The disk is full.', 'QuotaExceededError');
      return put.apply(this, given);
    };
    const { delete: take } = IDBObjectStore.prototype;
    IDBObjectStore.prototype.delete = function (...given: Parameters<typeof take>) {
      if (this.transaction.db.name === 'orange-stair found') isFull = false;
      return take.apply(this, given);
    };
  });
  await page.locator('#system-note').fill('in the tower');
  await page.locator('#system-note').press('Tab');
  await expect(page.getByRole('status').filter({ hasText: 'Noted on' })).toBeVisible();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await page.reload();
  await expect(page.locator('#system-note')).toHaveValue('in the tower');
});

test('over a network without encryption it plans, and files are told by their hashes', async ({
  baseURL
}) => {
  const address = new URL(baseURL ?? '');
  const browser = await chromium.launch({
    executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-background-networking',
      `--host-resolver-rules=MAP stair.example ${address.hostname}`
    ]
  });
  try {
    const page = await browser.newPage();
    const errors: string[] = [];
    page.on('pageerror', (e) => errors.push(e.message));
    await page.addInitScript(() => localStorage.setItem('orange-stair settings', '{"who":"tester"}'));
    await page.goto(`http://stair.example:${address.port}/estate`);
    expect(await page.evaluate(() => isSecureContext)).toBe(false);
    await page.getByRole('button', { name: 'Open the demo' }).click();
    await planned(page);
    await follow(page, '/stair?at=door-market');
    await page.locator('.onward').getByRole('button', { name: 'Take this way' }).click();
    await page.getByRole('button', { name: 'Make its worksheet' }).click();
    await page.locator('[data-kind=hop] button').first().click();
    const content = Buffer.from('what the screen said');
    await page
      .locator('input[type=file]')
      .setInputFiles({ name: 'photo.txt', mimeType: 'text/plain', buffer: content });
    const hash = createHash('sha256').update(content).digest('hex').slice(0, 12);
    await expect(page.locator('[data-open-item]')).toContainText(`photo.txt ${hash}`);
    expect(errors).toEqual([]);
  } finally {
    await browser.close();
  }
});
