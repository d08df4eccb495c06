import { readFileSync } from 'node:fs';
import type { Locator, Page } from '@playwright/test';
import { parse } from 'yaml';
import { expect, follow, giveFile, openDemo, planned, settled, test } from './desk';

/** Views of the demo; the catalogue's for every product. The text view shows the file itself. */
const VIEWS = [
  '/estate',
  '/estate/teams',
  '/estate/decisions',
  '/estate/changes',
  '/estate/workspaces',
  '/estate/system?at=draw-01',
  '/estate/system?at=stop-07',
  '/ready',
  '/ready/marks',
  '/ready/fetch',
  '/rights',
  '/dates',
  '/order',
  '/worksheet',
  '/dates/calendars',
  '/rights/buy',
  '/rights/waiting',
  '/ready/questions',
  '/ready/rechecks',
  '/ready/what-if',
  '/help',
  '/import',
  '/stair/compare?at=draw-01',
  '/catalogue?view=sources',
  '/catalogue?view=amiss'
];
/** One of every product, of every verdict. */
const STAIRS = [
  'draw-01',
  'tick-06',
  'west-01',
  'stop-07',
  'stop-24',
  'survey-01',
  'shelf-south',
  'door-old',
  'host-a-01'
];

interface Demo {
  readonly catalogue: { readonly text: string };
  readonly systems: readonly { readonly id: string; readonly name: string }[];
}

/** Identifiers of a catalogue that are nobody's name: with a sign in them, or of several words. */
function identifiersOf(demo: Demo): string[] {
  const found = new Set<string>();
  const names = new Set(demo.systems.map((s) => s.name));
  const walk = (value: unknown): void => {
    if (Array.isArray(value)) value.forEach(walk);
    else if (typeof value === 'object' && value !== null)
      for (const [key, inner] of Object.entries(value)) {
        if (KEYS.has(key) && typeof inner === 'string' && /[a-z]/i.test(inner) && /[-_.]/.test(inner))
          found.add(inner);
        if (key === 'name' || key === 'title') names.add(String(inner));
        walk(inner);
      }
  };
  walk(parse(demo.catalogue.text));
  return [...found].filter((id) => !names.has(id));
}
const KEYS = new Set(['id', 'fact', 'list', 'right', 'requirement', 'source', 'caution', 'product']);

const wordsOf = (ids: readonly string[]): [string, RegExp][] =>
  // A path of a file may have one in it.
  ids.map((id) => [id, new RegExp(`(^|[^\\w/-])${id.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}($|[^\\w-])`)]);

/** Everything that can be read on a page. */
async function read(page: Page, path: string): Promise<string[]> {
  await follow(page, path);
  await expect(page).toHaveURL(path);
  await settled(page);
  return readAll(page);
}

/** Everything in sight, all that is folded opened. */
async function readAll(page: Page): Promise<string[]> {
  for (let depth = 0; depth < 3; depth++) {
    const opened = await page.evaluate(() => {
      const shut = [...document.querySelectorAll<HTMLElement>('main .fold:not([data-open]) .fold-line')];
      shut.slice(0, 60).forEach((line) => line.click());
      return shut.length;
    });
    if (opened === 0) break;
  }
  return (await page.locator('main').innerText()).split('\n');
}

/** Lateness in another form than `26 days late`. */
const OTHER_LATENESS = /(^|\s)-\d+ ?(d|days?)?$|days of slack|\boverdue\b|^late$/;

test('no screen of the demo shows an identifier, and all say lateness in one way', async ({ page }) => {
  const demo = JSON.parse(readFileSync('demo/saltmarsh.json', 'utf8')) as Demo;
  const ids = identifiersOf(demo);
  expect(ids.length).toBeGreaterThan(150);
  const words = wordsOf(ids);
  await openDemo(page);
  const products = (parse(demo.catalogue.text) as { products: { id: string }[] }).products.map((p) => p.id);
  const shown: string[] = [];
  for (const path of [
    ...VIEWS,
    ...STAIRS.map((at) => `/stair?at=${at}`),
    ...products.flatMap((p) =>
      ['table', 'calendar', 'demands', 'rights'].map((v) => `/catalogue?product=${p}&view=${v}`)
    )
  ])
    for (const line of await read(page, path)) {
      for (const [id, pattern] of words) if (pattern.test(line)) shown.push(`${path}: ${id} in "${line}"`);
      if (OTHER_LATENESS.test(line.trim())) shown.push(`${path}: "${line}"`);
    }
  expect(shown).toEqual([]);
});

test('the forms of the catalogue say names, never identifiers, outside of their fields', async ({ page }) => {
  const demo = JSON.parse(readFileSync('demo/saltmarsh.json', 'utf8')) as Demo;
  const words = wordsOf(identifiersOf(demo));
  await openDemo(page);
  const shown: string[] = [];
  const look = async (what: string, pick: Locator): Promise<void> => {
    await pick.click();
    await expect(page.locator('aside form, aside section').first()).toBeVisible();
    for (const line of await readAll(page))
      for (const [id, pattern] of words) if (pattern.test(line)) shown.push(`${what}: ${id} in "${line}"`);
  };
  for (const product of (parse(demo.catalogue.text) as { products: { id: string }[] }).products) {
    const at = `/catalogue?product=${product.id}`;
    await page.goto(`${at}&view=table`);
    await look(`${product.id} hop`, page.locator('button.cell:has(.hop)').first());
    await page.goto(`${at}&view=calendar`);
    await look(`${product.id} release`, page.locator('button[data-release]').last());
    for (const view of ['demands', 'terms']) {
      await page.goto(`${at}&view=${view}`);
      const lists = await page.locator('[data-list]').evaluateAll((all) => all.map((l) => l.dataset['list']));
      for (const list of lists) {
        const first = page.locator(`[data-list="${list}"] tbody tr button`).first();
        if ((await first.count()) > 0) await look(`${product.id} ${list}`, first);
      }
    }
  }
  expect(shown).toEqual([]);
});

test('a list of one’s own: no identifier on the way from file to stair, and the orange button stays with the machine', async ({
  page
}) => {
  await openDemo(page);
  await page.goto('/import');
  await giveFile(
    page,
    'mine.csv',
    'host,os,memory\nmine-1,Garnock Desk 4 r1 Plain,8 GB\nmine-2,Garnock Desk 3 r5 Office,4 GB\nmine-3,Ossian Shelf 31.4 p7,\n'
  );
  await page.getByRole('button', { name: /^Take in/ }).click();
  await planned(page);
  for (const name of ['mine-1', 'mine-2', 'mine-3']) {
    await page.getByRole('searchbox', { name: 'Find' }).fill(name);
    await expect(page.locator('[data-case]')).toHaveCount(1);
    await expect(page.locator('[data-case]')).not.toContainText(/desk-|gw-|ossian-/);
  }
  await page.getByRole('searchbox', { name: 'Find' }).fill('mine-1');
  await page.locator('[data-case]').first().click();
  await expect(page.locator('[data-verdict]')).toBeVisible();
  const onward = page.locator('main .act.onward');
  await expect(onward).toHaveText('Find out what is missing');
  await onward.click();
  await expect(page).toHaveURL(/system\?at=mine-1/);
  await page.goto('/stair?at=draw-01');
  await expect(onward).toHaveText(/^Take this way/);
  await onward.click();
  await expect(page.locator('[data-taken]')).toBeVisible();
  await expect(page).toHaveURL(/stair\?at=draw-01/);
  await page.goto('/estate/decisions');
  await expect(page.locator('[data-decision]').filter({ hasText: 'takes the way by' }).first()).toBeVisible();
});

test('the one orange button of a stair never leads to another situation', async ({ page }) => {
  await openDemo(page);
  for (const at of STAIRS) {
    await page.goto(`/stair?at=${at}`);
    await expect(page.locator('[data-drawn]')).toBeVisible();
    await expect(page.getByText(/^(Planning|Looking into)/)).toHaveCount(0);
    const onward = page.locator('main .act.onward');
    expect(await onward.count(), at).toBeLessThan(2);
    for (const link of await onward.all()) {
      const href = await link.getAttribute('href');
      if (href) expect(href, at).toContain(`at=${at}`);
    }
  }
});

test('every goal and every decision is a sentence whose parts are changed where they stand', async ({
  page
}) => {
  await openDemo(page);
  await page.goto('/estate/teams');
  const goals = page.locator('[data-goal]');
  await expect(goals.first()).toContainText(/^It aims at the newest release ?, counts general releases/);
  for (const goal of await goals.all())
    expect((await goal.locator('p').first().innerText()).trim()).toMatch(/^[A-Z].*\.$/s);
  await goals
    .first()
    .getByRole('button', { name: /^takes a release/ })
    .click();
  await goals.first().getByLabel('days', { exact: true }).fill('90');
  await goals.first().getByLabel('days', { exact: true }).press('Enter');
  await expect(goals.first().getByRole('status')).toHaveText(/^moves (no verdict|\d+ verdicts?)$/);
  await goals.first().getByRole('button', { name: 'Leave it' }).click();
  await expect(goals.first()).toContainText('takes a release 4 weeks after it is out');
  await page.goto('/estate/decisions');
  for (const decision of await page.locator('[data-decision]').all())
    expect((await decision.innerText()).replace(/\s+/g, ' ')).toMatch(
      /^\S.*, (because: .*|no reason given) ?, (until .*|without an end) ?\. /
    );
});
