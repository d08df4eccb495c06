import type { Page } from '@playwright/test';
import { expect, giveFile, planned, row, settled, test } from './desk';

/** Twenty machines of three products of which only the dates are known, as on the first evening. */
function evening(): string {
  const day = (n: number): string => new Date(Date.UTC(2031, 2, 10) + n * 864e5).toISOString().slice(0, 10);
  const productOf = (id: string, name: string, labels: readonly string[], first: number, step: number) => ({
    id,
    name,
    publisher: 'Sandling Works',
    releases: labels.map((label, i) => ({
      id: label,
      published: day(first - 1500 + i * step),
      service: [{ phase: 'security', until: day(first + i * step) }]
    }))
  });
  const products = [
    productOf('wether', 'Wether', ['10', '11', '12', '13'], -814, 420),
    productOf('tern', 'Tern Shelf', ['a', 'b', 'c'], 60, 700),
    productOf('kelp', 'Kelp Appliance with a rather long name of its own', ['4.1', '4.2', '4.3'], -30, 300)
  ];
  const rows = [
    ['wether', '10', 6],
    ['wether', '11', 3],
    ['wether', '13', 2],
    ['tern', 'a', 4],
    ['tern', 'c', 1],
    ['kelp', '4.1', 2],
    ['kelp', '4.2', 2]
  ] as const;
  const systems = rows.flatMap(([product, release, count]) =>
    Array.from({ length: count }, (_, i) => ({
      id: `${product}-${release}-${i}`,
      name: `${product}-${release}-${i}`,
      product: { is: product },
      release: { is: release },
      patch: { unknown: 'not asked' },
      edition: { is: 'only' },
      architecture: { is: 'only' }
    }))
  );
  return JSON.stringify({
    format: 'orange-stair-workspace',
    version: 7,
    site: { name: 'Evening', asOf: '2031-03-10', countsExpected: true },
    systems,
    goals: [
      {
        id: 'all',
        rule: 'newest',
        maturities: ['general'],
        settlingDays: 28,
        passDays: 30,
        phase: 'security',
        allow: { fresh: true, unsupported: false, spending: true, restingOutOfService: true }
      }
    ],
    decisions: [],
    rightsHeld: [],
    catalogue: {
      fileName: 'dates.json',
      text: JSON.stringify({ format: 'orange-stair-catalogue', version: 3, name: 'dates', products })
    }
  });
}

async function openEvening(page: Page): Promise<void> {
  await page.goto('/import');
  await giveFile(page, 'evening.json', evening());
  await page.getByRole('button', { name: 'Open this workspace' }).click();
  await planned(page);
}

test('dates alone: sorted by urgency, nothing closed; paths said once a product, one answered by itself, and taken back', async ({
  page
}) => {
  await openEvening(page);
  const list = page.locator('main');
  await expect(list).not.toContainText('closed');
  await expect(list).not.toContainText('patch level');
  await expect(page.locator('[data-cell="slack"]')).toHaveText([
    '814 days past',
    '394 days past',
    '30 days past',
    '60',
    '270',
    '',
    ''
  ]);
  await expect(page.locator('[data-missing-paths]')).toContainText(
    'No upgrade path from Wether 10 is recorded'
  );
  // Asked on its stair too, of the release one looks at.
  await page.goto('/stair?at=wether-11-0');
  await settled(page);
  await expect(page.locator('[data-path-question="11>13"]')).toContainText(
    'Can Wether 11 be upgraded straight to'
  );
  await page.goto('/estate');
  await page.getByRole('link', { name: 'Say it' }).click();
  await expect(page.locator('[data-path-rule]')).toHaveCount(3);
  // One by itself, over another release.
  const one = page.locator('[data-path-question="10>13"]');
  await one.getByRole('button', { name: 'Only over…' }).click();
  await one.getByLabel('11').check();
  await one.getByRole('button', { name: 'Record it' }).click();
  await expect(page.locator('[data-path-rule="wether"]')).toHaveCount(0);
  // The others by one sentence a product.
  for (const product of ['tern', 'kelp']) {
    await page.locator(`[data-path-rule="${product}"]`).getByRole('button', { name: 'Record it' }).click();
    await expect(page.locator(`[data-path-rule="${product}"]`)).toHaveCount(0);
  }
  await page.goto('/estate');
  await planned(page);
  await expect(row(page, 'wether-10-0').locator('[data-cell="way"]')).toContainText('11');
  await expect(row(page, 'tern-a-0').locator('[data-cell="way"]')).toContainText('b');
  await expect(page.locator('[data-missing-paths]')).toHaveCount(0);
  // Who said it stands in the catalogue.
  await page.goto('/catalogue?product=wether&view=sources');
  await expect(page.locator('main')).toContainText('Said by tester');
  await page.goto('/estate');
  await planned(page);
  await page.keyboard.press('Control+z');
  await expect(page.locator('[data-missing-paths]')).toContainText('Kelp Appliance');
});

test('what nobody knows is given to somebody; with a draft open an answer goes into that', async ({
  page
}) => {
  await openEvening(page);
  await page.goto('/ready/questions');
  const one = page.locator('[data-path-question="a>c"]');
  await one.getByRole('button', { name: 'Not known…' }).click();
  await page.getByLabel('Who finds out').fill('I. Fenn');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(one).toContainText('I. Fenn finds out');
  await page.goto('/catalogue?product=tern&view=table');
  await page.locator('[data-path-rule="tern"]').getByRole('button', { name: 'Record it' }).click();
  await expect(page.locator('[data-cell="a>b"]')).toContainText('in place');
  await page.goto('/ready/questions');
  const other = page.locator('[data-path-question="10>13"]');
  await expect(other).toContainText('A draft of the catalogue is open');
  await other.getByRole('button', { name: 'No', exact: true }).click();
  await expect(other).toHaveCount(0);
  await page.goto('/catalogue?product=wether&view=table');
  await expect(page.locator('[data-cell="10>13"]')).toHaveAttribute('aria-label', '10 to 13: forbidden');
});
