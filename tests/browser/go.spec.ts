import { expect } from '@playwright/test';
import { expectAccessible, openDemo, planned, test } from './desk';

test('anything is gone to or done by its name, by keyboard alone; where one was last comes first', async ({
  page
}) => {
  await openDemo(page);
  await planned(page);
  const box = page.getByRole('combobox', { name: 'A place, an act or a system' });
  await page.keyboard.press('.');
  await expect(box).toBeFocused();
  await expectAccessible(page);
  await page.keyboard.type('windows');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/dates\/calendars$/);
  // A system by the beginning of its name.
  await page.keyboard.press('Control+.');
  await page.keyboard.type('west-04');
  await expect(page.getByLabel('Found').getByRole('option')).toHaveCount(1);
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/stair\?at=west-04$/);
  // Without words: where this tab was before.
  await page.keyboard.press('Control+.');
  await expect(page.getByLabel('Found').getByRole('option').first()).toHaveText(
    /When work|Dates|Windows|Calendars/
  );
  await page.keyboard.press('ArrowDown');
  await expect(page.getByLabel('Found').getByRole('option').nth(1)).toHaveAttribute('aria-selected', 'true');
  await page.keyboard.type('zzz');
  await expect(page.getByText('Nothing is called so.')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(box).toHaveCount(0);
  // An act: undo, from anywhere.
  await page.keyboard.press('Control+.');
  await page.keyboard.type('undo');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Undone: Opened the demo')).toBeVisible();
});
