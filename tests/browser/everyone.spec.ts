import type { Page } from '@playwright/test';
import { isQuick } from '../support/laws';
import { expect, expectAccessible, follow, kept, openDemo, openLaws, planned, settled, test } from './desk';

const VIEWS = [
  '/estate',
  '/estate/systems',
  '/estate/teams',
  '/estate/decisions',
  '/estate/changes',
  '/estate/workspaces',
  '/estate/system?at=draw-01',
  '/stair?at=draw-01',
  '/stair/compare?at=draw-01',
  '/ready',
  '/ready/marks',
  '/ready/fetch',
  '/ready/questions',
  '/ready/rechecks',
  '/ready/what-if',
  '/rights',
  '/rights/buy',
  '/rights/waiting',
  '/dates',
  '/dates/calendars',
  '/order',
  '/worksheet',
  '/help',
  '/import',
  '/import?ask',
  '/import/form',
  '/catalogue',
  '/catalogue?view=sources',
  '/catalogue?view=amiss',
  '/catalogue/table',
  '/catalogue/start'
];

/** What lies outside of the window and cannot be brought into it. */
const outside = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const width = innerWidth;
    const canScroll = (e: Element): boolean => ['auto', 'scroll'].includes(getComputedStyle(e).overflowX);
    const isCut = (e: Element): boolean => getComputedStyle(e).textOverflow === 'ellipsis';
    const found: string[] = [];
    if (document.documentElement.scrollWidth > width)
      found.push(`the page is ${document.documentElement.scrollWidth} wide`);
    for (const leaf of document.querySelectorAll('header *, main *')) {
      const box = leaf.getBoundingClientRect();
      if (leaf.children.length > 0 || box.width < 2 || box.height < 2 || box.right <= width + 1) continue;
      let around: Element | null = leaf;
      while (around && !canScroll(around) && !isCut(around)) around = around.parentElement;
      if (!around) found.push(`${leaf.tagName} “${(leaf.textContent ?? '').trim().slice(0, 40)}”`);
    }
    return found.slice(0, 5);
  });

for (const [name, width, height] of [
  ['400 pixels wide', 400, 800],
  ['at twice the size', 640, 400]
] as const)
  test(
    `every view ${name}: nothing lies outside that cannot be brought in`,
    width === 400 ? { tag: '@quick' } : {},
    async ({ page }) => {
      await openLaws(page);
      await page.setViewportSize({ width, height });
      const found: Record<string, string[]> = {};
      for (const view of VIEWS) {
        await follow(page, view);
        await expect(page).toHaveURL(new RegExp(view.replace(/[?]/g, '\\?')));
        await settled(page);
        const those = await outside(page);
        if (those.length > 0) found[view] = those;
        // Once a view where a hundredth of laws is tried; else at its usual size, in light and dark, below.
        if (isQuick) await expectAccessible(page, 'wcag21a', 'wcag22aa');
        expect(await page.locator('main').evaluate((m) => m.clientHeight), view).toBeGreaterThan(height / 2);
      }
      expect(found).toEqual({});
    }
  );

test('every view: what a machine can see of WCAG 2.2 AA, light and dark', async ({ page }) => {
  await openLaws(page);
  for (const view of VIEWS) {
    await follow(page, view);
    await expect(page).toHaveURL(new RegExp(view.replace(/[?]/g, '\\?')));
    await settled(page);
    await expectAccessible(page, 'wcag21a', 'wcag22aa');
  }
});

test.describe('with colours of the reader’s own', () => {
  test.use({ colorScheme: 'dark', contextOptions: { forcedColors: 'active' } });
  test('text stands out from its ground, drawings take them', async ({ page }) => {
    await openDemo(page);
    await expect(page.locator('.badge.loud').first()).toBeVisible();
    /** Colours of text and of the ground it is drawn on. */
    const colours = (selector: string): Promise<string[]> =>
      page
        .locator(selector)
        .first()
        .evaluate((e) => {
          const { color, backgroundColor, fill } = getComputedStyle(e);
          return [color, backgroundColor, fill];
        });
    const differ = async (selector: string): Promise<void> => {
      const [text, ground] = await colours(selector);
      expect(text, selector).not.toBe(ground);
    };
    await differ('.badge.loud');
    await differ('.notice');
    await page.goto('/stair?at=draw-01');
    await settled(page);
    await differ('.act.onward');
    const [, paper] = await colours('html');
    const [, , ink] = await colours('svg.stair text');
    expect(ink).not.toBe(paper);
  });
});

test('who wants nothing to move sees nothing move', async ({ page }) => {
  await page.emulateMedia({ reducedMotion: 'reduce' });
  await openDemo(page);
  for (const view of ['/estate', '/stair?at=draw-01', '/ready', '/order']) {
    await page.goto(view);
    await settled(page);
    expect(
      await page.evaluate(() => document.getAnimations().filter((a) => a.playState === 'running').length)
    ).toBe(0);
  }
});

/** Goes on by Tab until what has the focus is called so; a person would not press it more often than that. */
async function tabTo(page: Page, name: RegExp, most = 60, key: 'Tab' | 'Shift+Tab' = 'Tab'): Promise<void> {
  const seen: string[] = [];
  for (let n = 0; n < most; n++) {
    await page.keyboard.press(key);
    const at = await page.evaluate(() => {
      const e = document.activeElement;
      return `${e?.hasAttribute('data-wave') ? 'a wave ' : ''}${e?.hasAttribute('data-cell') ? 'a cell ' : ''}${e?.getAttribute('aria-label') ?? ''} ${e?.textContent?.trim().replace(/\s+/g, ' ') ?? ''}`.trim();
    });
    if (name.test(at)) return;
    seen.push(at.slice(0, 30));
  }
  throw new Error(`${String(name)} is not among ${seen.join(' | ')}`);
}

test('a whole job through all eight places without a mouse', { tag: '@quick' }, async ({ page }) => {
  await page.goto('/estate');
  await expect(page.getByRole('button', { name: 'Open the demo' })).toBeVisible();
  await tabTo(page, /^Open the demo/);
  await page.keyboard.press('Enter');
  await planned(page);
  // Estate: find it, go to it, open it.
  await page.keyboard.press('/');
  await page.keyboard.type('west-04');
  await expect(page.locator('[data-case]')).toHaveCount(1);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/stair\?at=west-04/);
  // Stair: why, its way, its worksheet.
  await settled(page);
  await page.keyboard.press('w');
  await expect(page.locator('[data-not-straight]')).toContainText('no hop in place');
  await tabTo(page, /^Take this way/, 120);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Make its worksheet' })).toBeVisible();
  await kept(page);
  await tabTo(page, /^Make its worksheet/, 120);
  await page.keyboard.press('Enter');
  // Worksheet: two items done.
  await expect(page.locator('[data-worksheet]')).toBeVisible();
  await page.keyboard.press('p');
  await expect(page.locator('[data-standing]')).toContainText('1 of');
  await page.keyboard.press('p');
  await expect(page.locator('[data-standing]')).toContainText('2 of');
  await page.keyboard.press('Control+z');
  await expect(page.locator('[data-standing]')).toContainText('1 of');
  // Order: along the waves, and one opened.
  await page.keyboard.press('[');
  await expect(page).toHaveURL(/\/order/);
  await settled(page);
  await tabTo(page, /^a wave/);
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-open-wave]')).toBeVisible();
  // Dates: what is due taken out.
  await page.keyboard.press('[');
  await expect(page).toHaveURL(/\/dates/);
  await settled(page);
  await tabTo(page, /^Take out as CSV/);
  const due = page.waitForEvent('download');
  await page.keyboard.press('Enter');
  expect((await due).suggestedFilename()).toMatch(/\.csv$/);
  // Rights: a pool opened.
  await page.keyboard.press('[');
  await expect(page).toHaveURL(/\/rights/);
  await settled(page);
  await tabTo(page, /^(Right: )?Upgrade to line 4/);
  await page.keyboard.press('Enter');
  await expect(page.locator('main')).toContainText('4 needed, 4 to buy for EUR 100.00');
  // Ready: what stands in the way opened.
  await page.keyboard.press('[');
  await expect(page).toHaveURL(/\/ready/);
  await settled(page);
  await tabTo(page, /whole disk at least 32 GB/, 90);
  await page.keyboard.press('Enter');
  await expect(page.locator('.fold[data-open]').first()).toBeVisible();
  // Catalogue: by name, to a cell of its table.
  await page.keyboard.press('.');
  await page.keyboard.type('catalogue');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/catalogue$/);
  await page.locator('[data-cell]').first().waitFor();
  await tabTo(page, /^a cell/, 120);
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-panel="cell"]')).toBeVisible();
  await page.keyboard.press('Control+.');
  await page.keyboard.type('undo the last');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/^Undone:/)).toBeVisible();
});
