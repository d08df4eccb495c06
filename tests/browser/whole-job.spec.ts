import { readFileSync } from 'node:fs';
import Papa from 'papaparse';
import { expect, giveFile, planned, row, test } from './desk';

test(
  'from a messy list to verdicts, another target, a plan taken out, a reload and undo',
  { tag: '@quick' },
  async ({ page }) => {
    await page.goto('/estate');
    await expect(page.getByRole('heading', { name: 'Nothing is on the desk yet' })).toBeVisible();
    await page.getByRole('link', { name: /Bring in a list/ }).click();
    await page.getByRole('button', { name: 'Take the demo’s catalogue' }).click();
    await expect(page.getByText('Took the demo catalogue')).toBeVisible();

    await giveFile(page, 'machines of spring.csv', readFileSync('demo/messy-machines.csv'));
    await expect(page.getByText(/UTF-8 with a byte-order mark, separated by semicolons/)).toBeVisible();
    await expect(page.getByText('not taken: repeats row 9')).toBeVisible();
    await expect(
      page.getByText('not taken: an older reading of the same machine; row 18 is newer')
    ).toBeVisible();
    await expect(
      page.getByText('Garnock Desk, could be 4 or 5, patch unknown, could be Plain')
    ).toBeVisible();

    await page.getByLabel('What column Remarks holds').selectOption('leave out');
    await expect(page.locator('[data-left-out]')).toContainText('“Remarks” (');
    await page.getByLabel('What column Dept holds').selectOption('site');
    await expect(page.getByLabel('What column Dept holds')).toHaveValue('site');
    await page.getByLabel('What column Dept holds').selectOption('team');
    await page.getByRole('button', { name: 'Take in 15 systems' }).click();

    await planned(page);
    await expect(page.getByText('15 systems in')).toBeVisible();
    await page.getByRole('button', { name: /as of/ }).click();
    await page.getByLabel('Day', { exact: true }).fill('2031-03-10');
    await page.getByRole('button', { name: 'Plan as of this day' }).click();
    await expect(row(page, 'draw-21')).toContainText('30 Jun 2031');
    await expect(row(page, 'cafe-till')).toContainText('cannot tell');

    await row(page, 'draw-21').click();
    await expect(page.locator('[data-verdict]')).toContainText('Garnock Desk 6 Studio: cannot tell');
    await expect(page.locator('[data-verdict]')).toContainText('perhaps by hops');
    await expect(page.locator('[data-questions]')).toContainText('Quay archive source');
    await page.locator('[data-tread="5"]').click();
    await expect(
      page
        .getByRole('status')
        .filter({ hasText: 'Target of Garnock Desk 4 r1 Studio is now Garnock Desk 5 Studio' })
    ).toBeVisible();
    await expect(page.locator('[data-verdict]')).toContainText('Garnock Desk 5 Studio: cannot tell');

    await page.getByRole('link', { name: /^Estate/ }).click();
    await page.getByRole('button', { name: 'Take out' }).click();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Plan, a row a system' }).click()
    ]);
    const text = readFileSync(await download.path(), 'utf8');
    const rows = Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true }).data;
    expect(rows.length).toBe(15);
    expect(rows.find((r) => r['system'] === 'draw-21')).toMatchObject({
      target: '5',
      verdict: 'cannot tell',
      deadline: '2031-06-30'
    });
    expect(rows.find((r) => r['system']?.includes('cmd-box'))?.['system']).toBe("'=cmd-box");

    await page.reload();
    await planned(page);
    await expect(page.getByText('15 systems in')).toBeVisible();
    await row(page, 'draw-21').click();
    await expect(page.locator('[data-verdict]')).toContainText('Garnock Desk 5 Studio');
    await page.keyboard.press('Control+z');
    await expect(page.locator('[data-verdict]')).toContainText('Garnock Desk 6 Studio');
    await page.keyboard.press('Control+Shift+z');
    await expect(page.locator('[data-verdict]')).toContainText('Garnock Desk 5 Studio');
    for (let i = 0; i < 4; i++) await page.keyboard.press('Control+z');
    await expect(page.getByRole('heading', { name: 'Nothing is on the desk yet' })).toBeVisible();
  }
);

test('a workspace taken out and opened again is the same', async ({ page }) => {
  await page.goto('/import');
  await giveFile(page, 'saltmarsh.json', readFileSync('demo/saltmarsh.json'));
  await page.getByRole('button', { name: 'Open this workspace' }).click();
  await planned(page);
  await page.getByRole('button', { name: 'Take out' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Workspace', exact: true }).click()
  ]);
  const sorted = (text: string): unknown => {
    const value = JSON.parse(text) as Record<string, { id: string }[]>;
    for (const list of ['systems', 'goals', 'decisions']) value[list]?.sort((a, b) => (a.id < b.id ? -1 : 1));
    return value;
  };
  expect(sorted(readFileSync(await download.path(), 'utf8'))).toEqual(
    sorted(readFileSync('demo/saltmarsh.json', 'utf8'))
  );
  await page.goto('/estate/workspaces');
  await page.getByRole('button', { name: 'Start over…' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Start over' }).click();
  await expect(page.getByRole('heading', { name: 'Nothing is on the desk yet' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await planned(page);
  await expect(page.getByText('262 systems in 52 situations')).toBeVisible();
});
