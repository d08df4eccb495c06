// `npm run screenshots`: takes the pictures of docs/screenshots again, from the demo, 1280x800, light.
// `npm run screenshots -- --dark FOLDER` takes them dark into another folder, for looking at.
import { spawn } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { build, installChromium, installPackages, root } from './install.mjs';

installPackages();
const executablePath = installChromium();
build();
const { chromium } = await import('@playwright/test');
const dark = process.argv.includes('--dark');
const folder = dark
  ? (process.argv[process.argv.indexOf('--dark') + 1] ?? '/tmp')
  : join(root, 'docs', 'screenshots');
mkdirSync(folder, { recursive: true });

const port = 4191;
const address = `http://127.0.0.1:${port}`;
const server = spawn(process.execPath, [join(root, 'build', 'index.js')], {
  env: { ...process.env, HOST: '127.0.0.1', PORT: String(port) },
  stdio: 'ignore'
});
for (let i = 0; i < 100; i++) {
  if (
    await fetch(address).then(
      () => true,
      () => false
    )
  )
    break;
  await new Promise((resolve) => setTimeout(resolve, 100));
}

const browser = await chromium.launch({
  executablePath,
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-background-networking',
    '--font-render-hinting=none',
    '--disable-lcd-text',
    '--disable-partial-raster',
    '--num-raster-threads=1',
    '--force-color-profile=srgb'
  ]
});
try {
  const page = await browser.newPage({
    viewport: { width: 1280, height: 800 },
    colorScheme: dark ? 'dark' : 'light',
    reducedMotion: 'reduce',
    timezoneId: 'UTC',
    locale: 'en-GB'
  });
  await page.addInitScript(() =>
    localStorage.setItem(
      'orange-stair settings',
      localStorage.getItem('orange-stair settings') ?? '{"who":"tester"}'
    )
  );
  // It may be busy with other things.
  page.setDefaultTimeout(120_000);
  await page.goto(`${address}/estate`);
  await page.getByRole('button', { name: 'Open the demo' }).click();
  await page.locator('[data-case]').first().waitFor();
  const shoot = async (name) => {
    await page.mouse.move(2, 798);
    await page.waitForLoadState('networkidle');
    await page.getByText(/^Planning/).waitFor({ state: 'detached' });
    await page.waitForTimeout(500);
    await page.getByText(/^(Working it out|Looking into)/).waitFor({ state: 'detached', timeout: 90_000 });
    await page.evaluate(() => document.fonts.ready);
    await page.screenshot({ path: join(folder, `${name}.png`), animations: 'disabled', caret: 'hide' });
    console.log(join(folder, `${name}.png`));
  };
  await page.getByRole('button', { name: 'Close' }).click();
  await shoot('estate');
  await page.goto(`${address}/stair?at=draw-01`);
  await page.locator('svg.stair').waitFor();
  await shoot('stair');
  await page.goto(`${address}/stair/compare?at=draw-01`);
  await page.getByRole('button', { name: 'Line 7 preview' }).click();
  await page.locator('[data-side="track"]').waitFor();
  await shoot('compare');
  await page.goto(`${address}/ready`);
  await page.locator('[data-looked="true"]').waitFor({ state: 'attached' });
  await page.getByLabel('Within a budget').fill('2500');
  await shoot('ready');
  await page.goto(`${address}/rights`);
  await page.locator('[data-tread]').first().waitFor();
  await shoot('rights');
  await page.goto(`${address}/rights/waiting`);
  await page.locator('[data-verdict]').waitFor({ timeout: 60_000 });
  await shoot('waiting');
  await page.goto(`${address}/dates`);
  await page.locator('[data-due] tbody tr').first().waitFor();
  await shoot('dates');
  await page.goto(`${address}/order?of=depot-ledger`);
  await page.locator('[data-waves] tbody tr').first().waitFor();
  await page.locator('[data-open-wave]').waitFor();
  await shoot('order');
  await page.goto(`${address}/ready/what-if`);
  await page.getByLabel('A new copy').fill('Wait for autumn, unsupported hops allowed');
  await page.getByRole('button', { name: 'Begin' }).click();
  await page.getByLabel('What if').selectOption('other ways allowed');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await page.getByLabel('What if').selectOption('another day');
  await page.getByRole('textbox', { name: 'Day' }).fill('2031-10-01');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await page.locator('[data-plan-change]').first().waitFor();
  await shoot('what-if');
  await page.getByRole('button', { name: 'Drop it' }).click();
  await page.goto(`${address}/import`);
  await page.getByRole('button', { name: /messy/ }).click();
  await page.getByRole('button', { name: /^Take in/ }).waitFor();
  await shoot('import');
  for (const [name, path, ready] of [
    ['systems', '/estate/systems', '[data-row]'],
    ['system', '/estate/system?at=survey-01', '[data-fact]'],
    ['teams', '/estate/teams', '[data-team]'],
    ['decisions', '/estate/decisions', '[data-decision]']
  ]) {
    await page.goto(`${address}${path}`);
    await page.locator(ready).first().waitFor();
    await page.getByText(/^Planning/).waitFor({ state: 'detached' });
    await shoot(name);
  }
  await page.goto(`${address}/catalogue?product=garnock-desk`);
  await page.locator('[data-cell="4>5"]').click();
  const levels = page.locator('[data-entry="desk-4-5"]').getByLabel('levels');
  await levels.fill('from 4/r1');
  await levels.press('Enter');
  await page.locator('[data-changes]').waitFor();
  await shoot('catalogue');
  await page.getByRole('button', { name: 'Drop all' }).click();
  await page.goto(`${address}/catalogue?product=brindle-server&view=calendar`);
  await page.locator('[data-release="9"]').click();
  await shoot('calendar');
  await page.goto(`${address}/catalogue?product=marram-draft&view=demands`);
  await page.locator('[data-open="requirements/draft-security"]').click();
  await shoot('demands');
  await page.goto(`${address}/catalogue/start`);
  await page.locator('input[type=file]').setInputFiles({
    name: 'recorders.md',
    mimeType: 'text/markdown',
    buffer: Buffer.from(
      '## Signal recorder: life of releases\n| Release | Out | Full service until | Fixes until |\n|---|---|---|---|\n| 2 | 13.2.2027 | 30.9.2030 | 30.9.2031 |\n| 2.1 | 8.11.2027 | 30.9.2031 | 30.9.2032 |\n| 3 | May 2029 | Q4 2033 | Q4 2034 |\n\n## Signal recorder: upgrades\n| from | 2 | 2.1 | 3 |\n|---|---|---|---|\n| 2 | | yes | no |\n| 2.1 | no | | yes |\n'
    )
  });
  await page.getByRole('button', { name: 'Take 2 tables' }).waitFor();
  await shoot('start');
  await page
    .getByRole('button', { name: 'Drop all' })
    .click()
    .catch(() => undefined);
  await page.goto(`${address}/stair?at=west-04`);
  await page.locator('.onward').getByRole('button', { name: 'Take this way' }).click();
  await page.getByRole('button', { name: 'Make its worksheet' }).click();
  await page.locator('.item.here').waitFor();
  for (let i = 0; (await page.locator('.item.here').getAttribute('data-kind')) !== 'hop'; i++) {
    await page.locator('[data-open-item]').getByRole('button', { name: 'Passed', exact: true }).click();
    await page.locator('[data-state=passed]').nth(i).waitFor();
  }
  await page.locator('[data-open-item]').getByRole('button', { name: 'Start', exact: true }).click();
  await page.locator('[data-running]').waitFor();
  await page.getByRole('button', { name: 'Close' }).click();
  await shoot('worksheet');
} finally {
  await browser.close();
  server.kill();
}
