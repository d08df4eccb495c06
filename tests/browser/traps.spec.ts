import { readFileSync } from 'node:fs';
import { expect, follow, openDemo, test } from './desk';

/** The rows of the trap table in demo/README.md. */
const TRAPS = readFileSync('demo/README.md', 'utf8')
  .split('\n')
  .map((line) => line.split('|').map((cell) => cell.trim()))
  .filter((cells) => cells[3]?.startsWith('/'))
  .map(([, trap = '', system = '', path = '', words = '']) => ({ trap, system, path, words }));

test('every trap of the demo is said where somebody would fall into it', async ({ page }) => {
  expect(TRAPS.length).toBeGreaterThan(28);
  await openDemo(page);
  const missed: string[] = [];
  for (const { trap, path, words } of TRAPS) {
    const [address = '', sample] = path.split('#');
    await follow(page, address);
    await page.waitForURL((url) => url.pathname + url.search === address);
    if (sample) await page.getByRole('button', { name: new RegExp(sample) }).click();
    const said = page.locator('main').getByText(words, { exact: false }).first();
    const found = await said
      .waitFor({ state: 'attached', timeout: 40_000 })
      .then(() => true)
      .catch(() => false);
    // Words may run over several elements, or stand in a field.
    const text = (await page.locator('main').textContent()) ?? '';
    const fields = await page
      .locator('main :is(input, textarea)')
      .evaluateAll((list) => list.map((el) => (el as HTMLInputElement).value));
    const all = `${text} ${fields.join(' ')}`.replace(/\s+/g, ' ');
    if (!found && !all.includes(words)) missed.push(`${trap}: ${path} does not say "${words}"`);
  }
  expect(missed).toEqual([]);
});
