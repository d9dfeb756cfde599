import { expect } from '@playwright/test';
import { expectAccessible, signInToDemo, startRun, test } from './laboratory';

test('anything is found by its name with one key: a bottle, a certificate, a page from the bench', async ({
  page,
}) => {
  await signInToDemo(page, 'Tobin');
  await page.keyboard.press('/');
  const finder = page.getByRole('dialog', { name: 'Find' });
  const field = finder.getByRole('searchbox');
  await expect(field).toBeFocused();
  await expect(finder.getByRole('menuitem', { name: /House rules/ })).toBeVisible();
  await expectAccessible(page);
  await field.fill('0398');
  await expect(
    finder.getByRole('menuitem', { name: /^0398 sodium hydroxide, 0\.1 mol\/L/ }),
  ).toBeVisible();
  await field.fill('no such thing');
  await expect(finder.getByText('Nothing here is called so.')).toBeVisible();
  await field.fill('0398-1');
  await finder.getByRole('menuitem', { name: /^0398-1 hydroxide/ }).click();
  await expect(page.getByRole('heading', { level: 1, name: /Certificate 0398-1/ })).toBeVisible();

  await page.getByRole('button', { name: 'Find' }).click();
  await field.fill('0398');
  await expect(finder.getByRole('menuitem', { name: /^0398 / })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1, name: 'Bottle 0398' })).toBeVisible();

  await page.goto('/');
  await startRun(page);
  const entry = page.getByRole('textbox', { name: /net mass, flask 1/ });
  await entry.fill('0.48');
  // A slash is a letter of what is written there; the other key works anywhere, and what was typed stays.
  await page.keyboard.press('/');
  await expect(finder).toBeHidden();
  await page.keyboard.press('Control+k');
  await expect(field).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(entry).toHaveValue('0.48/');
  await page.keyboard.press('Control+k');
  await field.fill('equip');
  await finder.getByRole('menuitem', { name: /^Equipment/ }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Equipment' })).toBeVisible();
});
