import { expect, expectAccessible, follow, giveFile, openDemo, openGenerated, planned, test } from './desk';

test('hostile and broken files get a message and change nothing', { tag: '@quick' }, async ({ page }) => {
  await openDemo(page);
  const files: [string, string | Buffer, RegExp][] = [
    ['deep.json', '['.repeat(5000), /nested deeper/],
    ['zero.csv', 'name;os\0', /zero bytes/],
    [
      'bomb.yaml',
      'format: orange-stair-catalogue\na: &a [1,1,1,1,1,1,1,1,1]\nb: &b [*a,*a,*a,*a,*a,*a,*a,*a,*a]\nc: &c [*b,*b,*b,*b,*b,*b,*b,*b,*b]\nd: [*c,*c,*c,*c,*c,*c,*c,*c,*c]',
      /aliases/
    ],
    ['half.json', '{"format": "orange-stair-workspace", "version": 1,', /cannot be read/],
    [
      'proto.json',
      '{"format": "orange-stair-workspace", "version": 1, "__proto__": {"x": 1}}',
      /not allowed here/
    ],
    ['empty.csv', '   ', /nothing in it/],
    ['sheet.xlsx', Buffer.from('PK\u0003\u0004broken'), /spreadsheet cannot be read/],
    [
      'dates.yaml',
      'format: orange-stair-catalogue\nversion: 1\nname: n\nproducts:\n  - {id: p, name: P, publisher: P, releases: [{id: a, published: soon}]}',
      /line 5, column \d+: This is not a date/
    ]
  ];
  for (const [name, content, message] of files) {
    await follow(page, '/import');
    await giveFile(page, name, content);
    await expect(page.getByRole('alert')).toContainText(message);
    await expect(page.getByRole('alert')).toContainText('nothing has changed');
  }
  await follow(page, '/estate');
  await planned(page);
  await expect(page.getByText('262 systems in 52 situations')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Undone: Opened the demo')).toBeVisible();
});

test('what one tab changes the other shows, and either can undo it', async ({ page, context }) => {
  await openDemo(page);
  const other = await context.newPage();
  await other.goto('/stair?at=tick-06');
  await expect(other.locator('[data-verdict]')).toContainText('6 Plain');
  await page.goto('/stair?at=tick-06');
  await page.locator('[data-tread="5"]').click();
  await expect(other.locator('[data-verdict]')).toContainText('5 Plain');
  await other.keyboard.press('Control+z');
  await expect(page.locator('[data-verdict]')).toContainText('6 Plain');
});

test('by keyboard alone: bring in a list, find a machine, read its stair', async ({ page }) => {
  await page.goto('/import');
  const reach = async (name: RegExp | string, role: 'button' | 'link' = 'button'): Promise<void> => {
    for (let i = 0; i < 60; i++) {
      await page.keyboard.press('Tab');
      const is = await page
        .getByRole(role, { name })
        .first()
        .evaluate((el) => el === document.activeElement)
        .catch(() => false);
      if (is) return;
    }
    throw new Error(`cannot reach ${name}`);
  };
  await reach(/messy example/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Take in 15 systems' })).toBeVisible();
  await reach('Take in 15 systems');
  await page.keyboard.press('Enter');
  await planned(page);
  await page.keyboard.press('/');
  await page.keyboard.type('draw-23');
  await expect(page.locator('[data-case]')).toHaveCount(1);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Garnock Desk 4 r2 Studio' })).toBeVisible();
  await page.keyboard.press('/');
  await expect(page.getByRole('searchbox', { name: 'Find' })).toBeFocused();
  await page.keyboard.press('Escape');
  await page.goBack();
  await expect(page.getByRole('heading', { name: 'Garnock Desk 4 r2 Studio' })).toBeVisible();
  await page.keyboard.press('[');
  await expect(page).toHaveURL(/estate/);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('one place down or up the rail');
  await page.getByLabel('Keys without Ctrl are on').uncheck();
  await page.keyboard.press('Escape');
  await page.keyboard.press(']');
  await expect(page).toHaveURL(/estate/);
});

test('ten thousand systems: progress counts, stop stops, rows are drawn as they come into sight', async ({
  page
}) => {
  await openGenerated(page, 10_000, 2400);
  await expect(page.getByText(/Planning: [1-9]\d* of 2400 cases/)).toBeVisible();
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(page.getByText('Planning was stopped')).toBeVisible();
  await page.getByRole('button', { name: 'Plan again' }).click();
  await expect(page.getByText('10,000 systems in 2,400 situations')).toBeVisible();
  expect(await page.locator('[data-case]').count()).toBeLessThan(90);
  const rows = page.getByRole('grid');
  await rows.evaluate((el) => (el.scrollTop = el.scrollHeight));
  await expect(rows.locator('[aria-rowindex="2400"]')).toBeVisible();
  const box = await rows.locator('[aria-rowindex="2400"]').boundingBox();
  expect(box?.height).toBe(22);
  await page.getByRole('searchbox', { name: 'Find' }).fill('machine-77 ');
  await expect(page.locator('[data-case]').first()).toBeVisible();
});

test('where there are cores to spare other workers plan along, and end with the plan, or when it is stopped', async ({
  page,
  browser
}) => {
  // The page tells its workers how many there are.
  await page.addInitScript(() => Object.defineProperty(navigator, 'hardwareConcurrency', { value: 4 }));
  const root = await browser.newBrowserCDPSession();
  const countWorkers = async (): Promise<number> => {
    const { targetInfos } = await root.send('Target.getTargets');
    return targetInfos.filter((t) => t.type === 'worker').length;
  };
  await openGenerated(page, 6000, 6000);
  const alone = await countWorkers();
  await expect.poll(countWorkers, { intervals: [20] }).toBe(alone + 2);
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect.poll(countWorkers).toBeLessThan(alone + 1);
  await page.getByRole('button', { name: 'Plan again' }).click();
  await expect.poll(countWorkers, { intervals: [20] }).toBe(alone + 2);
  await expect(page.getByText('6,000 systems in 6,000 situations')).toBeVisible();
  await expect(page.getByText(/^Planning[:…]/)).toHaveCount(0);
  await expect.poll(countWorkers).toBe(alone);
});

test('on paper every row is there, whatever is in sight', async ({ page }) => {
  await openDemo(page);
  expect(await page.locator('[data-case]').count()).toBeLessThan(66);
  await page.emulateMedia({ media: 'print' });
  await page.evaluate(() => window.dispatchEvent(new Event('beforeprint')));
  await expect(page.locator('[data-case]')).toHaveCount(66);
  const last = await page.locator('[aria-rowindex="66"]').boundingBox();
  const whole = await page.evaluate(() => document.documentElement.scrollHeight);
  expect(whole).toBeGreaterThanOrEqual(Math.floor((last?.y ?? 0) + (last?.height ?? 0)));
});

test('an update of a machine shows as a change, and taking it in again as nothing', async ({ page }) => {
  await openDemo(page);
  for (const [text, words] of [
    ['1 to take in', 'changed'],
    ['0 to take in, 1 as they are', 'as it is']
  ] as const) {
    await page.goto('/import');
    await giveFile(
      page,
      'update.csv',
      'name,product,version,patch,team\nrack-01,Brindle Server,8,u2,Machine room\n'
    );
    await expect(page.getByText(`(${words})`)).toBeVisible();
    await expect(page.getByRole('button', { name: text })).toBeVisible();
    if (words === 'changed') await page.getByRole('button', { name: 'Take in 1 system' }).click();
    if (words !== 'changed') continue;
    await page.getByRole('searchbox', { name: 'Find' }).fill('name = rack-01');
    await expect(page.locator('[data-case]')).toHaveCount(1);
    await expect(page.locator('[data-case]')).toContainText('Brindle Server 8 u2');
  }
});

test('nothing stands in the way of people who see or move otherwise', async ({ page }) => {
  await page.goto('/estate');
  await expect(page.getByRole('button', { name: 'Open the demo' })).toBeVisible();
  await expectAccessible(page);
  await openDemo(page);
  await expectAccessible(page);
  for (const path of ['/stair?at=draw-01', '/catalogue', '/import']) {
    await page.goto(path);
    await expect(page.getByRole('heading').first()).toBeVisible();
    await expectAccessible(page);
  }
  await page.getByRole('button', { name: /messy/ }).click();
  await expect(page.getByRole('button', { name: /Take in/ })).toBeVisible();
  await expectAccessible(page);
});

test('the policy of every page lets in nothing from elsewhere', async ({ request }) => {
  for (const path of ['/estate', '/stair', '/catalogue', '/import']) {
    const policy = (await request.get(path)).headers()['content-security-policy'] ?? '';
    expect(policy).toContain("default-src 'none'");
    expect(policy).toMatch(/script-src 'self' 'nonce-/);
    expect(policy).not.toMatch(/unsafe-inline|unsafe-eval|https?:|\*/);
  }
});
