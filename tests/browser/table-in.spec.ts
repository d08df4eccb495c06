import { expect, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { expectAccessible, follow, giveFile, openDemo, planned, row, test } from './desk';

/** As a browser puts it when cells of a page are copied. */
const pasteHtml = (page: Page, html: string, into = page.getByLabel('Or paste')): Promise<void> =>
  into.evaluate((box, text) => {
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

test(
  'cells copied from a page: columns found, product known again, what would move told, taken once',
  { tag: '@quick' },
  async ({ page }) => {
    const asked: string[] = [];
    page.on('request', (r) => asked.push(r.url()));
    await openDemo(page);
    await planned(page);
    await follow(page, '/catalogue');
    await page.getByRole('link', { name: 'A publisher’s table' }).click();
    await expectAccessible(page);
    await pasteHtml(page, page1);
    await expect(page.getByLabel('Product')).toHaveValue('brindle-server');
    await expect(page.getByLabel('What “Security fixes until” is')).toHaveValue('security');
    await expect(page.locator('[data-counts]')).toHaveText('1 new, 2 changed');
    await expect(page.locator('[data-change=new]')).toContainText('the day it came out: 2031-06');
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
    await follow(page, '/catalogue/table');
    await pasteHtml(page, page1);
    await expect(page.locator('[data-counts]')).toHaveText('3 as it is');
    await expect(page.getByRole('button', { name: 'Put it into the draft' })).toBeDisabled();
    expect(await page.title()).not.toBe('run');
    expect(asked.filter((url) => url.includes('elsewhere'))).toEqual([]);
  }
);

test('a file with headings nobody knows, in any order, of a new product: every release dated in three clicks', async ({
  page
}) => {
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
  await expect(page.locator('[data-change=new]').first()).toContainText('the day it came out: 15 Jan 2020');
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
  await expect(page.locator('[data-change=new]')).toContainText('6 to 9 new');
  await expect(page.locator('[data-change=new]')).toContainText('a hop in place');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Put it into the draft' }).click();
  await expect(page.getByRole('heading', { name: 'Brindle Server' })).toBeVisible();
  await page.getByRole('button', { name: 'Keep the changes' }).click();
  await expect(page.getByRole('button', { name: 'Keep the changes' })).toHaveCount(0);
  // Next month the same word is remembered with its source.
  await page.goto('/catalogue/table');
  await page
    .getByLabel('Or paste')
    .fill('# Brindle Server\n\n| from | 8 | 9 | 10 |\n|---|---|---|---|\n| 8 | | yes | x |\n| 9 | | | x |\n');
  await page.getByRole('button', { name: 'Read what is pasted' }).click();
  await expect(page.getByLabel('What “x” means')).toHaveValue('in place');
});

test('a page of several tables: each is known, of its product, said once, and put in one after the other', async ({
  page
}) => {
  await openDemo(page);
  await planned(page);
  await page.goto('/catalogue/table');
  await giveFile(page, 'marram.html', readFileSync('demo/tables/marram-draft.html'));
  const about = page.getByLabel('What the table is about');
  const counts = page.locator('[data-counts]');
  await expect(page.getByLabel('Product')).toHaveValue('marram-draft');
  await expect(about).toHaveValue('list');
  await expect(counts).toHaveText('5 as it is');
  await page.getByLabel('Which table').selectOption({ index: 1 });
  await expect(about).toHaveValue('companions');
  await expect(page.getByLabel('What “remove first” means')).toHaveValue('remove first');
  await expect(counts).toHaveText('12 as it is');
  // What a word means may be said otherwise; what the catalogue has from elsewhere stays.
  await page.getByLabel('What “reinstall it” means').selectOption('works');
  await expect(counts).toContainText('2 against what the catalogue has; that stays');
  await page.getByRole('button', { name: 'Another table' }).click();
  await giveFile(page, 'pellow.xlsx', readFileSync('demo/tables/pellow-terminal.xlsx'));
  await page.getByLabel('Which table').selectOption({ index: 1 });
  await expect(about).toHaveValue('requirements');
  await expect(page.getByLabel('What “Whole drive” means')).toHaveValue('disk.total');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Another table' }).click();
  const problems = readFileSync('demo/tables/twinbank-mirror.html', 'utf8');
  await giveFile(page, 'notes.html', problems.replace('2.9 to 2.10', '2.9 and later'));
  await expect(about).toHaveValue('problems');
  await expect(counts).toHaveText('1 changed, 1 as it is');
  await expect(page.locator('[data-change=changed]')).toContainText(
    'where it is met: 2.9 to 2.10, now 2.9 or later'
  );
  await page.getByRole('button', { name: 'Put it into the draft' }).click();
  await expect(page.getByRole('heading', { name: 'Twinbank Mirror' })).toBeVisible();
  // Which verdicts would move is told before it is kept.
  await expect(page.getByText(/^Planning[:…]/)).toHaveCount(0);
  await expect(page.getByText('No verdict, way or day would change')).toBeVisible();
  // An end that moves: told with its days and who stands there, and again by verdicts.
  await page.goto('/catalogue/table');
  const calendar = readFileSync('demo/tables/garnock-desk.html', 'utf8');
  await giveFile(
    page,
    'calendar.html',
    calendar
      .replace('31 October 2029', '31 October 2031')
      .replace('30 June 2031', '30 June 2032')
      .replace('30 June 2032', '30 June 2033')
  );
  await expect(page.locator('[data-change=changed]')).toContainText(
    'end of full service: 31 Oct 2029, now 31 Oct 2031, 730 days later'
  );
  await page.getByRole('button', { name: 'Put it into the draft' }).click();
  await expect(page.locator('[data-changes]')).toContainText(/verdict/);
  await page.getByRole('button', { name: 'Keep the changes' }).click();
  await expect(page.getByRole('button', { name: 'Keep the changes' })).toHaveCount(0);
});

const PRODUCTS = ['Kestrel panel', 'Lamp desk', 'Tide gauge', 'Gatehouse', 'Moorland scan', 'Osprey link'];

/** A publisher's page: when its releases come and end, and which leads to which. */
const pageOf = (product: string, i: number): string => {
  const releases = ['2.9', '2.10', '3 LTS', '4'];
  const cells = (words: readonly string[], tag = 'td'): string =>
    `<tr>${words.map((w) => `<${tag}>${w}</${tag}>`).join('')}</tr>`;
  const life = releases.map((r, k) =>
    cells([
      r,
      `${2023 + k}`,
      `${i + 3} March ${2023 + k}`,
      `30 June ${2027 + k}<sup>1</sup>`,
      `Q${(i % 4) + 1} ${2029 + k}`
    ])
  );
  const grid = releases.map((from, a) =>
    cells([
      from,
      ...releases.map((_, b) =>
        b === a ? '' : b === a + 1 ? 'yes' : a === 0 && b === 3 ? 'fresh install' : 'no'
      )
    ])
  );
  return `<h1>${product}</h1><h2>${product}: support of releases</h2><table>${cells(['Release', 'Also called', 'Out', 'Full', 'Fixes'], 'th')}${life.join('')}</table><h2>${product}: upgrades</h2><table>${cells(['from', ...releases], 'th')}${grid.join('')}</table>`;
};

test('forty machines of six unknown products, with nothing but their publishers’ tables: verdicts with hops in fifteen actions', async ({
  page
}) => {
  let actions = 0;
  const click = async (name: string | RegExp, role: 'button' | 'link' = 'button'): Promise<void> => {
    actions++;
    await page.getByRole(role, { name }).click();
  };
  // As machines say it: a line, a patch level of it, a word of service behind it, the year it is named by, a version and nothing else.
  const SAID = ['2.9', '2.10.7', '3 LTS', '2024', '2.9.12'];
  const machines = Array.from({ length: 40 }, (_, i) =>
    i === 39 ? `m-39\t2.10.9` : `m-${i}\t${PRODUCTS[i % 6]} ${SAID[i % 5]}`
  );
  await page.goto('/import');
  actions++;
  await page.getByLabel(/Or paste/).fill(['name\tos', ...machines].join('\n'));
  await click('Read what is pasted');
  await click('Take in 40 systems');
  await planned(page);
  await click('40 systems of no product yet', 'link');
  await expect(page.getByRole('button', { name: /^Kestrel panel/ })).toBeVisible();
  for (const [i, product] of PRODUCTS.entries()) {
    actions++;
    await pasteHtml(page, pageOf(product, i), page.getByLabel('Table of dates'));
    await expect(page.locator('[data-ready=true]')).toHaveCount(2 * (i + 1));
  }
  await expectAccessible(page);
  await click('Take 12 tables');
  await expect(page.getByRole('button', { name: 'Kestrel panel 4 releases, 4 dated, 4 hops' })).toBeVisible();
  // One machine says only a version: somebody has to say of what.
  await click(/^no product named/);
  actions++;
  await page.getByLabel('The product of these machines').selectOption('Gatehouse');
  await click('Make them and plan');
  await planned(page);
  expect(actions).toBeLessThanOrEqual(15);

  await page.getByRole('button', { name: /as of/ }).click();
  await page.getByLabel('Day', { exact: true }).fill('2026-11-23');
  await page.getByRole('button', { name: 'Plan as of this day' }).click();
  await planned(page);
  await expect(page.getByText('cannot tell', { exact: true })).toHaveCount(0);
  await row(page, 'm-0').click();
  await expect(page.locator('[data-verdict]')).toContainText('Kestrel panel 4: by 3 hops');
  await page.goto('/stair?at=m-1');
  await expect(page.locator('[data-verdict]')).toContainText('Lamp desk 4: by 2 hops');
  await page.goto('/estate/system?at=m-1');
  await expect(page.getByText('2.10.7').first()).toBeVisible();
  await page.goto('/estate/system?at=m-39');
  await expect(page.getByText('Gatehouse').first()).toBeVisible();
});
