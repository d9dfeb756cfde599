import { expect } from '@playwright/test';
import { expectAccessible, signInToDemo, test } from './laboratory';

/** The colour of the paper as the page has it, 0 (black) to 255. */
const paperLightness = () => {
  const [red = 0, green = 0, blue = 0] = (
    getComputedStyle(document.documentElement).backgroundColor.match(/\d+/g) ?? []
  ).map(Number);
  return (red + green + blue) / 3;
};

for (const [look, words] of [
  ['dark', 'Dark: for a dimmed room'],
  ['contrast', 'High contrast: for the fume cupboard'],
] as const) {
  test(`${look}: chosen by a person for this device, legible on every kind of page, and never printed`, async ({
    page,
  }) => {
    await signInToDemo(page, 'Mirela');
    const bench = await page
      .getByRole('link', { name: 'Go on titrating' })
      .first()
      .getAttribute('href');
    await page.goto('/account');
    await page.getByRole('radio', { name: words }).check();
    await expect(page.locator('html')).toHaveAttribute('data-look', look);
    for (const path of ['/', bench ?? '', `${bench ?? ''}/judge`, '/titrate/set-up', '/rules']) {
      await page.goto(path);
      await expect(page.locator('main h1').first()).toBeVisible();
      await expect(page.getByText('One moment …')).toHaveCount(0);
      await expect(page.locator('html')).toHaveAttribute('data-look', look);
      await expectAccessible(page);
    }
    expect(await page.evaluate(paperLightness)).toBeCloseTo(look === 'dark' ? 21 : 255, -1);
    await page.emulateMedia({ media: 'print' });
    expect(await page.evaluate(paperLightness)).toBe(255);
    await page.emulateMedia({ media: 'screen' });

    // Somebody else at the same device has their own.
    await page.goto('/');
    await page.getByRole('button', { name: 'Sign out' }).click();
    await page.getByRole('button', { name: /Tobin/ }).click();
    await expect(page.getByRole('heading', { level: 1, name: 'Shelf' })).toBeVisible();
    await expect(page.locator('html')).toHaveAttribute('data-look', 'light');
  });
}

test('as the device is set, until somebody chooses', async ({ page }) => {
  await page.emulateMedia({ colorScheme: 'dark' });
  await signInToDemo(page, 'Mirela');
  await expect(page.locator('html')).toHaveAttribute('data-look', 'dark');
  await page.emulateMedia({ colorScheme: 'light' });
  await expect(page.locator('html')).toHaveAttribute('data-look', 'light');
  await page.emulateMedia({ contrast: 'more' });
  await expect(page.locator('html')).toHaveAttribute('data-look', 'contrast');
});
