import { expect, type Page } from '@playwright/test';
import { expectAccessible, giveFile, openDemo, planned, test } from './desk';

/** As a browser puts it when cells of a page are copied. */
const pasteHtml = (page: Page, html: string): Promise<void> =>
  page.getByLabel('Or paste').evaluate((box, text) => {
    const data = new DataTransfer();
    data.setData('text/html', text);
    data.setData('text/plain', 'cells without their table');
    box.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  }, html);

const LIFE = [
  ['6', 'Crane', '10 Jan 2024', '31 Jan 2029', '31 Mar 2031'],
  ['7', 'Heron', '12 Feb 2026', '28 Feb 2030', '30 Jun 2031'],
  ['11 LTS', 'Lark', 'June 2031', 'Q3 2035', '2037']
];
const page1 = `<h2>Brindle Server: life of releases</h2><script>document.title = 'run'</script><table><tr>${['Release', 'Code name', 'Released', 'Full support', 'Security fixes until'].map((h) => `<th>${h}</th>`).join('')}</tr>${LIFE.map((r) => `<tr>${r.map((c) => `<td>${c}<sup>1</sup></td>`).join('')}</tr>`).join('')}</table><img src="https://elsewhere.example/x.png">`;

test('cells copied from a page: columns found, product known again, what would move told, taken once', async ({
  page
}) => {
  test.setTimeout(180_000);
  const asked: string[] = [];
  page.on('request', (r) => asked.push(r.url()));
  await openDemo(page);
  await planned(page);
  await page.goto('/catalogue');
  await page.getByRole('link', { name: 'A publisher’s table' }).click();
  await expectAccessible(page);
  await pasteHtml(page, page1);
  await expect(page.getByLabel('Product')).toHaveValue('brindle-server');
  await expect(page.getByLabel('What “Security fixes until” is')).toHaveValue('security');
  await expect(page.locator('[data-counts]')).toHaveText('1 new, 2 changed');
  await expect(page.locator('[data-change=new]')).toContainText('11 new, out 2031-06');
  await expectAccessible(page);
  // A column that is left out is told no more.
  await page.getByLabel('What “Security fixes until” is').selectOption('left out');
  await expect(page.locator('[data-change=new]')).not.toContainText('end of security service');
  await page.getByLabel('What “Security fixes until” is').selectOption('security');
  await page.getByRole('button', { name: 'Put it into the draft' }).click();
  await expect(page.getByText('Brindle project, 6 releases')).toBeVisible();
  await page.getByRole('button', { name: 'Keep the changes' }).click();
  await expect(page.getByRole('button', { name: 'Keep the changes' })).toHaveCount(0);
  // The same table once more has nothing to say.
  await page.goto('/catalogue/table');
  await pasteHtml(page, page1);
  await expect(page.locator('[data-counts]')).toHaveText('3 as it is');
  await expect(page.getByRole('button', { name: 'Put it into the draft' })).toBeDisabled();
  expect(await page.title()).not.toBe('run');
  expect(asked.filter((url) => url.includes('elsewhere'))).toEqual([]);
});

test('a file with headings nobody knows, in any order, of a new product: every release dated in three clicks', async ({
  page
}) => {
  test.setTimeout(180_000);
  const rows = Array.from({ length: 30 }, (_, i) => {
    const year = 2020 + Math.floor(i / 3);
    const day = (years: number): string => `${year + years}-0${(i % 9) + 1}-15`;
    return `${day(6)};${day(3)};Kestrel ${i + 1}.0;${day(0)}`;
  });
  await page.goto('/catalogue');
  await page.getByRole('link', { name: 'Take in a publisher’s table' }).click();
  await giveFile(page, 'kestrel.csv', `Stage two;Stage one;Thing;Day\n${rows.join('\n')}\n`);
  await page.getByLabel('Its name').fill('Kestrel');
  await expect(page.locator('[data-counts]')).toHaveText('30 new');
  await expect(page.locator('[data-change=new]').first()).toContainText('1.0 new, out 15 Jan 2020');
  await expect(page.locator('[data-change=new]').first()).toContainText('end of full service: 15 Jan 2023');
  await expect(page.locator('[data-change=new]').first()).toContainText(
    'end of security service: 15 Jan 2026'
  );
  await page.getByRole('button', { name: 'Put it into the draft' }).click();
  await expect(page.getByRole('heading', { name: 'Kestrel' })).toBeVisible();
  await page.getByRole('button', { name: 'Keep the changes' }).click();
  await expect(page.getByText('30 releases')).toBeVisible();
});

test('days that can be read two ways are asked of; what is no table says so', async ({ page }) => {
  await page.goto('/catalogue/table');
  const box = page.getByLabel('Or paste');
  await box.fill('just a sentence of words');
  await page.getByRole('button', { name: 'Read what is pasted' }).click();
  await expect(page.getByRole('alert')).toContainText('No table');
  await box.fill('Release\tUntil\nKite 1\t03/04/2031\nKite 2\t05/06/2032\n');
  await page.getByRole('button', { name: 'Read what is pasted' }).click();
  await page.getByLabel('Its name').fill('Kite');
  await expect(page.getByRole('button', { name: 'Put it into the draft' })).toBeDisabled();
  await page.getByRole('button', { name: '3 April' }).click();
  await expect(page.locator('[data-change=new]').first()).toContainText('3 Apr 2031');
  await expect(page.getByRole('button', { name: 'Put it into the draft' })).toBeEnabled();
});

test('a grid of which leads to which: what its words mean is said once, and the hops are in the draft', async ({
  page
}) => {
  test.setTimeout(180_000);
  await openDemo(page);
  await planned(page);
  await page.goto('/catalogue/table');
  await page
    .getByLabel('Or paste')
    .fill(
      '# Brindle Server\n\n| from | 6 | 7 | 8 | 9 | 10 |\n|---|---|---|---|---|---|\n| 6 | same | yes | yes | x | no |\n| 7 | | same | yes | x | no |\n| 8 | | | same | yes | x |\n'
    );
  await page.getByRole('button', { name: 'Read what is pasted' }).click();
  await expect(page.getByLabel('What the table is about')).toHaveValue('hops');
  await expect(page.getByLabel('Product')).toHaveValue('brindle-server');
  // `x` could be either: nothing is taken of it until somebody says.
  await expect(page.getByLabel('What “x” means')).toHaveValue('left out');
  const counts = page.locator('[data-counts]');
  await expect(counts).toHaveText('6 as it is');
  await page.getByLabel('What “x” means').selectOption('in place');
  await expect(counts).toContainText('1 new');
  await expect(page.locator('[data-hop=new]')).toContainText('6 to 9: a hop in place, new');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Put it into the draft' }).click();
  await expect(page.getByRole('button', { name: 'Keep the changes' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Brindle Server' })).toBeVisible();
});
