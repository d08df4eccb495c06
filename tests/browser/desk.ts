import { rmSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { expect, test as base, type Page } from '@playwright/test';
import { generateWorld } from '../../bench/generate';
import { littleText } from '../../scripts/little-demo';
import { isQuick } from '../support/laws';

/** A page on which any console error - a broken Content-Security-Policy among them - fails the test. */
export const test = base.extend<{ page: Page }>({
  page: async ({ page }, use) => {
    const errors: string[] = [];
    // The name on decisions is asked once; a test of its own says so.
    await page.addInitScript(() => {
      document.addEventListener('securitypolicyviolation', (e) =>
        console.error(`${e.violatedDirective} violated by ${e.blockedURI}`)
      );
      if (!localStorage.getItem('orange-stair settings'))
        localStorage.setItem('orange-stair settings', JSON.stringify({ who: 'tester' }));
    });
    // A run at another time of day: `BROWSER_CLOCK=2031-03-10T23:58`.
    const clock = process.env['BROWSER_CLOCK'];
    if (clock !== undefined) await page.clock.setSystemTime(new Date(clock));
    page.on('console', (m) => m.type() === 'error' && errors.push(m.text()));
    page.on('pageerror', (e) => errors.push(e.message));
    // The page asks before something not yet kept is left behind; a test answers by waiting.
    const goto = page.goto.bind(page);
    page.goto = async (...to) => {
      if (page.url().startsWith('http')) await kept(page);
      return goto(...to);
    };
    await use(page);
    expect(errors).toEqual([]);
  }
});
export { expect };

/** Opens the demo on an empty desk and waits for its plan. */
export async function openDemo(page: Page): Promise<void> {
  await page.goto('/estate');
  await page.getByRole('button', { name: 'Open the demo' }).click();
  await planned(page);
}

/** Opens the demo; its little sister where a hundredth of laws is tried. */
export async function openLaws(page: Page): Promise<void> {
  if (!isQuick) return openDemo(page);
  await page.goto('/import');
  await giveFile(page, 'little.json', littleText());
  await page.getByRole('button', { name: 'Open this workspace' }).click();
  await planned(page);
}

/** Waits until rows are there and nothing is being planned. */
export async function planned(page: Page): Promise<void> {
  await expect(page.locator('[data-case]').first()).toBeVisible();
  await expect(page.getByText(/^Planning[:…]/)).toHaveCount(0);
}

/** Gives the import page a file by content. */
export async function giveFile(page: Page, name: string, content: string | Buffer): Promise<void> {
  await page
    .locator('input[type=file]')
    .setInputFiles({ name, mimeType: 'application/octet-stream', buffer: Buffer.from(content) });
}

/** Opens a generated estate on an empty desk; its plan may take a while. */
export async function openGenerated(page: Page, systems: number, cases: number): Promise<void> {
  const { catalogue, estate } = generateWorld(3, systems, cases, 12);
  const workspace = {
    format: 'orange-stair-workspace',
    version: 1,
    ...estate,
    catalogue: { fileName: 'generated.json', text: JSON.stringify(catalogue) }
  };
  await page.goto('/import');
  await giveFile(page, 'many.json', JSON.stringify(workspace));
  await page.getByRole('button', { name: 'Open this workspace' }).click();
}

/** Waits until the page is still: nothing has changed in it for ten frames. */
const still = (page: Page): Promise<void> =>
  page.evaluate(async () => {
    let quiet = 0;
    const watch = new MutationObserver(() => (quiet = 0));
    watch.observe(document.body, { subtree: true, childList: true, attributes: true, characterData: true });
    while (quiet++ < 10) await new Promise((done) => requestAnimationFrame(done));
    watch.disconnect();
  });

/** Waits until what a place shows is there, and nothing is being worked out any more. */
export async function settled(page: Page): Promise<void> {
  await expect(page.locator('main')).not.toHaveText('');
  await still(page);
  await expect(
    page.getByText(
      /^(Planning|Looking (into|again)|Laying every|Working it out|Finding the order|Reading what)/
    )
  ).toHaveCount(0);
  await still(page);
}

const QUIET = { resultTypes: ['violations' as const] };

/**
 * Nothing on the page stands in the way of people who see or move otherwise, in light and in dark; dark differs by its colours only.
 * Where a hundredth of laws is tried each view is asked once and in light, by the test that walks all of them with every rule.
 */
export async function expectAccessible(page: Page, ...more: readonly string[]): Promise<void> {
  if (isQuick && more.length === 0) return;
  for (const colorScheme of isQuick ? (['light'] as const) : (['light', 'dark'] as const)) {
    await page.emulateMedia({ colorScheme });
    await expect(page.locator('html')).toHaveClass(colorScheme === 'dark' ? /\bdark\b/ : /^(?!.*\bdark\b)/);
    await still(page);
    // One frame: nothing has to be put together in a page of its own.
    const axe = new AxeBuilder({ page }).setLegacyMode(true);
    const { violations } =
      colorScheme === 'light'
        ? await axe.options({ ...QUIET, runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa', ...more] }).analyze()
        : await axe.options({ ...QUIET, runOnly: ['color-contrast', 'link-in-text-block'] }).analyze();
    const found = violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(' | ')}`);
    expect(found, `${page.url()}, ${colorScheme}`).toEqual([]);
  }
}

/** Whether the browser would ask before leaving, since something is not kept yet. */
const asksToStay = (page: Page): Promise<boolean> =>
  page.evaluate(() => !window.dispatchEvent(new Event('beforeunload', { cancelable: true })));

/** Throws a browser's folder away. One that was killed may have helpers left that write for a while: what they leave is nobody's matter. */
export function discard(folder: string): void {
  try {
    rmSync(folder, { recursive: true, force: true, maxRetries: 20, retryDelay: 200 });
  } catch {
    // It lies where what is left lying is swept away.
  }
}

/** Waits until everything on the screen is kept. */
export const kept = (page: Page): Promise<void> => expect.poll(() => asksToStay(page)).toBe(false);

export const row = (page: Page, system: string) => page.locator(`[data-case="${system}"]`);

/** Goes on inside the application, without reading and planning everything anew. */
export const follow = (page: Page, href: string): Promise<void> =>
  page.evaluate((to) => {
    const link = document.createElement('a');
    link.href = to;
    document.body.append(link);
    link.click();
    link.remove();
  }, href);
