import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import {
  expect,
  expectAccessible,
  follow,
  giveFile,
  kept,
  openDemo,
  openGenerated,
  planned,
  row,
  test
} from './desk';

const grid = (page: Page) => page.getByRole('grid');

/** Pastes a text where the focus is, as the system's clipboard would. */
const paste = (page: Page, text: string): Promise<void> =>
  grid(page).evaluate((el, t) => {
    const data = new DataTransfer();
    data.setData('text/plain', t);
    el.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  }, text);

test(
  'the grid: typed, filled down, pasted, refused; each one step to undo',
  { tag: '@quick' },
  async ({ page }) => {
    await openDemo(page);
    await follow(page, '/estate/systems');
    await expect(page.getByText('262 of 262 systems')).toBeVisible();
    await page.getByRole('searchbox').fill('name = draw');
    await expect(page.getByText('9 of 262 systems')).toBeVisible();
    await grid(page).focus();
    for (let i = 0; i < 6; i++) await page.keyboard.press('ArrowRight');
    await page.keyboard.type('Pattern shop');
    await page.keyboard.press('Enter');
    await expect(page.locator('[data-row="draw-01"]')).toContainText('Pattern shop');
    await page.keyboard.press('ArrowUp');
    for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowDown');
    await page.keyboard.press('Control+d');
    await expect(page.getByText('Filled 3 cells downwards: Systems')).toBeVisible();
    await expect(page.locator('[data-row="draw-04"]')).toContainText('Pattern shop');
    await page.keyboard.press('Control+z');
    await expect(page.locator('[data-row="draw-04"]')).toContainText('Drawing office');
    await expect(page.locator('[data-row="draw-01"]')).toContainText('Pattern shop');

    await page.getByRole('searchbox').fill('');
    await expect(page.getByText('262 of 262 systems')).toBeVisible();
    await grid(page).focus();
    await page.keyboard.press('Control+End');
    await page.keyboard.press('Home');
    await paste(page, Array.from({ length: 500 }, (_, i) => `lamp-${i}\tBrindle Server\t8\tu2`).join('\n'));
    await expect(page.getByText('762 of 762 systems')).toBeVisible();
    await expect(page.getByText('Pasted 500 rows: Systems')).toBeVisible();
    await page.keyboard.press('Control+z');
    await expect(page.getByText('262 of 262 systems')).toBeVisible();

    await page.getByRole('searchbox').fill('name = draw-02');
    await expect(page.getByText('1 of 262 systems')).toBeVisible();
    await grid(page).focus();
    await page.keyboard.press('Control+Home');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.type('77');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('alert')).toContainText(
      '1 cell not taken: “77”: Garnock Desk has no release 77'
    );
  }
);

test('ten thousand systems: the grid draws what is in sight, and what is typed stands there', async ({
  page
}) => {
  await openGenerated(page, 10_000, 240);
  await planned(page);
  await page.goto('/estate/systems');
  await expect(page.getByText('10,000 of 10,000 systems')).toBeVisible();
  await expect(page.getByText(/^Planning[:…]/)).toHaveCount(0);
  expect(await page.locator('[role=gridcell]').count()).toBeLessThan(800);
  await grid(page).focus();
  // How fast that is, `npm run bench:browser` measures; here, that nothing is drawn that is not in sight.
  for (const act of [
    () => page.keyboard.press('ArrowDown'),
    () => page.keyboard.press('PageDown'),
    () => grid(page).evaluate((box) => (box.scrollTop += 9000))
  ])
    for (let i = 0; i < 5; i++) {
      await act();
      expect(await page.locator('[role=gridcell]').count()).toBeLessThan(800);
    }
  await page.keyboard.press('Control+Home');
  for (let i = 0; i < 7; i++) await page.keyboard.press('ArrowRight');
  await page.keyboard.type('Attic');
  await page.keyboard.press('Enter');
  await expect(page.locator('[aria-rowindex="2"]')).toContainText('Attic');
});

test('ten thousand rows come in with progress, changed ones against what is there', async ({ page }) => {
  await openDemo(page);
  await page.goto('/import');
  const csv = (release: string) =>
    [
      'Name,OS,Memory (GB)',
      ...Array.from(
        { length: 10_000 },
        (_, i) => `m-${i},Brindle Server ${i < 100 ? release : 8},${4 + (i % 3)}`
      )
    ].join('\n');
  await giveFile(page, 'many.csv', csv('8'));
  await expect(page.getByRole('button', { name: 'Take in 10,000 systems' })).toBeVisible();
  await page.getByRole('button', { name: 'Take in 10,000 systems' }).click();
  await planned(page);
  await page.goto('/import');
  await giveFile(page, 'many-april.csv', csv('9').split('\n').slice(0, -5).join('\n'));
  await expect(page.getByLabel('Name of this list')).toHaveValue('many.csv');
  await expect(page.getByText('read before: what changed is shown')).toBeVisible();
  await expect(page.getByRole('button', { name: '100 changed' })).toBeVisible();
  await expect(page.locator('[data-vanished]')).toContainText('5 systems came from “many.csv” before');
  await page.getByRole('button', { name: 'Take in 100 systems' }).click();
  await planned(page);
  await page.goto('/estate/changes');
  await expect(page.locator('[data-import]').first()).toContainText(
    '0 new, 100 changed, 5 no longer on it, 9,895 as they were'
  );
  await expect(page.getByText('release: 8, now 9').first()).toBeVisible();
  await expect(page.getByText('it stays in the plan until it is retired').first()).toBeVisible();
});

test('the machine the server runs on: read, taken in, not in the catalogue, with the way to add it', async ({
  page
}) => {
  await openDemo(page);
  await page.goto('/import');
  await page.getByRole('button', { name: 'Read the machine this server runs on' }).click();
  await expect(page.getByText('not in the catalogue')).toBeVisible();
  const name = await page.getByLabel(/^Name of machine/).inputValue();
  expect(name.length).toBeGreaterThan(0);
  await page.getByRole('button', { name: 'Take in 1 system' }).click();
  await planned(page);
  await page.goto('/estate/systems');
  await page.getByRole('searchbox').fill(`name = "${name}" source = "this machine"`);
  await page.getByRole('link', { name: `Open ${name}` }).click();
  await expect(page.getByText('the catalogue does not have it')).toBeVisible();
  await expect(page.locator('[data-fact="memory"] input')).not.toHaveValue('');
  await page.getByRole('link', { name: 'make a product of it' }).click();
  await expect(page).toHaveURL(/catalogue\/start/);
});

test('a dispute is ruled on, an unknown assumed, a question asked; the name is asked once', async ({
  page
}) => {
  await page.addInitScript(() => localStorage.removeItem('orange-stair settings'));
  await openDemo(page);
  await page.goto('/estate/system?at=survey-01');
  const fact = page.locator('[data-fact="security-part"]');
  await fact.getByRole('button', { name: 'This holds' }).first().click();
  await page.getByLabel('Your name').fill('Night shift');
  await page.getByRole('button', { name: 'Decide under this name' }).click();
  await expect(fact).toContainText('holds by ruling');
  await expect(page.getByText('2 systems alike')).toHaveCount(0);
  const unknown = page.locator('[data-fact="drive.kind"]');
  await unknown.getByRole('button', { name: 'Assume…' }).click();
  await page.getByRole('dialog').getByLabel('Value').fill('solid');
  await page.getByRole('dialog').getByLabel('Reason').fill('All of them were bought so.');
  await page.getByRole('button', { name: 'Assume it' }).click();
  await expect(unknown).toContainText('assumed');
  await kept(page);
  await page.goto('/estate/decisions');
  const made = page.locator('[data-decision]').filter({ hasText: 'is taken to be solid' });
  await expect(made).toContainText('because: All of them were bought so');
  await expect(made).toContainText('Night shift, 10 Mar 2031');
  await made.getByRole('button', { name: 'Change the last day' }).click();
  await made.getByLabel('Until', { exact: true }).fill('30.6.2031');
  await made.getByLabel('Until', { exact: true }).press('Enter');
  await expect(made).toContainText('until 30 Jun 2031');
  await page.getByRole('searchbox').fill('graphics level garnock');
  await page
    .locator('[data-unknown="garnock-desk/graphics.level"]')
    .getByRole('button', { name: 'Ask…' })
    .click();
  await page.getByLabel('Who finds out').fill('workshop');
  await page.getByLabel('By', { exact: true }).fill('2031-03-20');
  await page.getByRole('button', { name: 'Keep it' }).click();
  const question = page.locator('[data-question]').filter({ hasText: 'graphics level' });
  await expect(question).toContainText('workshop');
  await expect(page.locator('[data-unknown="garnock-desk/graphics.level"]')).toHaveCount(0);
  await question.getByRole('button', { name: 'Answer or change' }).click();
  await page.getByLabel('Answer').fill('Level 3 all over.');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await page.getByLabel('What is shown').selectOption('expired or answered');
  await expect(page.getByText('Level 3 all over.')).toBeVisible();
});

test('a team’s goal is set in words and the plan follows', async ({ page }) => {
  await openDemo(page);
  await expect(row(page, 'west-04')).toContainText('6');
  await page.goto('/estate/teams');
  const team = page.locator('[data-team="West depot"]');
  await expect(team).toContainText('Follows the goal of all others.');
  await expect(team.locator('[data-chosen]')).toContainText('Garnock Desk 6 for 18 systems');
  await team.getByRole('button', { name: 'Differ in something' }).click();
  await page.getByRole('menuitem', { name: 'takes Garnock Desk to…' }).click();
  await team.getByLabel('Target release of Garnock Desk').selectOption('5');
  await expect(team.getByRole('status')).toHaveText(/^moves \d+ verdicts$/);
  await team.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('Set the goal of West depot')).toBeVisible();
  await expect(team).toContainText('As all others, but it takes Garnock Desk to 5');
  await page.goto('/stair?at=yard-01');
  await expect(page.locator('[data-verdict]')).toContainText('Garnock Desk 5 Plain: straight there');
  await page.goto('/estate/teams');
  await team.getByRole('button', { name: 'Differ in something' }).click();
  await page.getByRole('menuitem', { name: 'must keep…' }).click();
  await team.getByLabel('Must keep').selectOption('everything');
  await team.getByRole('button', { name: 'Keep it' }).click();
  await expect(team).toContainText(/it\s+must keep everything\s+and\s+takes Garnock Desk to 5/);
  await page.goto('/stair?at=west-01');
  await expect(page.locator('[data-verdict]')).toContainText('closed');
  await expect(page.locator('main')).toContainText('it keeps less than the goal demands');
  await page.goto('/estate/teams');
  await team.getByRole('button', { name: 'Follow the goal of all others again' }).click();
  await expect(team).toContainText('Follows the goal of all others.');
});

test('a system’s life: added bare, replaced, retired, its record kept; two side by side', async ({
  page
}) => {
  await openDemo(page);
  await page.goto('/estate/system?at=stop-07');
  await page.getByRole('button', { name: 'Replace it…' }).click();
  await page.getByRole('dialog').getByLabel('Name').fill('stop-07b');
  await page.getByRole('button', { name: 'Add it' }).click();
  await expect(page.getByText('nothing installed; meant for Pellow Terminal')).toBeVisible();
  await expect(page.locator('[data-history]')).toContainText('takes the place of stop-07');
  await page.goto('/estate/system?at=stop-07');
  await expect(page.locator('[data-history]')).toContainText('replaced by stop-07b');
  await page.getByRole('button', { name: 'Retire it; its history is kept' }).click();
  await expect(page.getByText('Retired stop-07')).toBeVisible();
  await page.goto('/estate');
  await expect(page.getByText('262 systems in')).toBeVisible();
  await expect(page.getByText('1 retired.')).toBeVisible();
  await page.goto('/estate/system?at=stop-08');
  await page.getByLabel('Address').fill('https://pages.example/stop');
  await page.getByLabel('Title').fill('Wiring');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('link', { name: 'Wiring' })).toHaveAttribute('rel', /noopener/);
  await page.getByRole('button', { name: 'Keep a tool’s result…' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Tool').fill('sweep');
  await dialog.getByLabel('Items it announced').fill('3');
  await dialog.getByLabel(/Its items/).fill('pass: memory = 1 GB\nfailure: Mesh network part');
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.locator('[data-check="sweep"]')).toContainText('1 item announced is not there');
  await expect(page.locator('[data-check="sweep"]')).toContainText('cheapest to test first');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.getByLabel('Side by side with').fill('stop-30');
  await page.getByLabel('Side by side with').press('Enter');
  await expect(page.getByRole('table', { name: 'Two systems side by side' })).toContainText('P2');
  await expect(page.getByRole('table', { name: 'Two systems side by side' })).toContainText('P4');
});

test('several workspaces: one for reading only, a copy of it, and two people’s work joined', async ({
  page
}) => {
  await openDemo(page);
  const theirs = JSON.parse(readFileSync('demo/saltmarsh.json', 'utf8')) as {
    systems: { id: string; team?: string; facts?: Record<string, unknown> }[];
  };
  const one = theirs.systems.find((s) => s.id === 'cad-05');
  one!.team = 'Pattern shop';
  one!.facts = { ...one!.facts, memory: { value: '32 GB', day: '2031-03-01', source: 'their list' } };
  theirs.systems.push({ ...theirs.systems[0]!, id: 'theirs-01', name: 'theirs-01' } as never);
  const file = JSON.stringify(theirs);
  await page.goto('/import');
  await giveFile(page, 'theirs.json', file);
  await page.getByRole('button', { name: 'Join it with what is here' }).click();
  await expect(page.locator('[data-join]')).toContainText('1 system only the other has');
  const conflict = page.locator('[data-conflict="system/cad-05 team"]');
  await expect(conflict).toContainText('Drawing office (here)');
  await conflict.getByLabel(/Pattern shop/).check();
  await page.getByRole('button', { name: 'Join them' }).click();
  await expect(page.getByText('Joined with theirs.json, 1 conflict settled')).toBeVisible();
  await page.goto('/estate/system?at=cad-05');
  await expect(page.getByText('Pattern shop')).toBeVisible();
  await expect(page.locator('[data-fact="memory"]')).toContainText('their list');
  await expect(page.locator('[data-fact="memory"]')).toContainText('drawing office list');

  await page.goto('/import');
  await giveFile(page, 'theirs.json', file);
  await page.getByRole('button', { name: 'Open it beside, for reading only' }).click();
  await expect(page.getByText('reading only')).toBeVisible();
  await planned(page);
  await page.goto('/stair?at=tick-06');
  await page.locator('[data-tread="5"]').click();
  await expect(page.getByRole('alert')).toContainText('open for reading only');
  await page.goto('/estate/workspaces');
  await page.getByRole('button', { name: 'Make a copy and open it' }).click();
  await expect(page).toHaveURL(/\/estate$/);
  await planned(page);
  await expect(page.getByText('reading only')).toHaveCount(0);
  await page.goto('/estate/workspaces');
  await expect(page.locator('[data-workspace]')).toHaveCount(3);
  await page.locator('[data-workspace="w2"]').getByRole('button', { name: 'Remove…' }).click();
  await page.getByRole('button', { name: 'Remove it' }).click();
  await expect(page.locator('[data-workspace]')).toHaveCount(2);
  await page.locator('[data-workspace="first"]').getByRole('button', { name: 'Open' }).click();
  await planned(page);
  await expect(page.getByText('263 systems in')).toBeVisible();
});

test('words off a screen: what it may be, and why; texts and records pasted', async ({ page }) => {
  await openDemo(page);
  await page.goto('/import');
  const box = page.getByLabel(/Or paste/);
  await box.fill('Hello, the box in the hall says GARNOCK DESK build 4.2.118 (Studio).');
  await page.getByRole('button', { name: 'What is this?' }).click();
  const what = page.getByLabel('What this may be');
  await expect(what).toContainText('Garnock Desk 4 r2 Studio');
  await expect(what).toContainText('4.2.118 (build)');
  await what.getByRole('button', { name: 'Add a machine that runs this' }).first().click();
  await page.getByRole('dialog').getByLabel('Name').fill('hall-09');
  await page.getByRole('button', { name: 'Add it' }).click();
  await expect(page.getByRole('heading', { name: 'hall-09' })).toBeVisible();
  await expect(page.locator('dd').filter({ hasText: 'Garnock Desk 4 r2 Studio' }).first()).toBeVisible();
  await page.goto('/import');
  await box.fill('web-90:\nNAME="Brindle Server"\nVERSION_ID="8"\nNAME=Other\nVERSION_ID=1\n');
  await page.getByRole('button', { name: 'Read what is pasted' }).click();
  await expect(page.getByText('Brindle Server, 8')).toBeVisible();
  await page.getByLabel('Name of machine 4').fill('other-90');
  await page.getByLabel('Name of machine 4').press('Enter');
  await page.getByRole('button', { name: 'Take in 2 systems' }).click();
  await planned(page);
  await expect(page.getByText('265 systems in')).toBeVisible();
});

test('the estate’s pages stand in nobody’s way', async ({ page }) => {
  await openDemo(page);
  for (const path of [
    '/estate/systems',
    '/estate/systems?sheet=facts',
    '/estate/system?at=survey-01',
    '/estate/system?at=draw-01&with=cad-05',
    '/estate/teams',
    '/estate/decisions',
    '/estate/changes',
    '/estate/workspaces',
    '/import',
    '/import/form'
  ]) {
    await page.goto(path);
    await expectAccessible(page);
  }
});

test('a failure about nothing that is known closes every hop until it is ruled wrong, with a reason', async ({
  page
}) => {
  await openDemo(page);
  await follow(page, '/estate/system?at=web-01');
  await page.getByRole('button', { name: 'Keep a tool’s result…' }).click();
  await page.getByLabel('Tool', { exact: true }).fill('probe');
  await page.getByLabel('Its items, one a line').fill('failure: Strange thing');
  await page.getByRole('button', { name: 'Keep it' }).click();
  const check = page.locator('[data-check="probe"]');
  await expect(check).toContainText('so it closes every hop');
  await follow(page, '/stair?at=web-01');
  await expect(page.locator('[data-verdict="closed"]')).toContainText('Strange thing');
  await follow(page, '/estate/system?at=web-01');
  await check.getByRole('button', { name: 'It is wrong…' }).click();
  await page.getByLabel('Why').fill('Tried by hand.');
  await page.getByRole('button', { name: 'Rule it wrong' }).click();
  await expect(check).toContainText('Ruled wrong; it closes nothing.');
  await follow(page, '/stair?at=web-01');
  await expect(page.locator('[data-verdict="straight"]')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.locator('[data-verdict="closed"]')).toBeVisible();
});
