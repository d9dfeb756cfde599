import { expect } from '@playwright/test';
import { enter, expectAccessible, signInToDemo, test } from './laboratory';

test('the verification pack runs in the browser, can be stopped, and makes a report', async ({
  page,
}) => {
  await signInToDemo(page, 'Jasna');
  await page.getByRole('link', { name: 'Verification' }).click();
  await page.getByRole('button', { name: 'Run the verification' }).click();
  await expect(page.getByRole('progressbar')).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByRole('progressbar')).toBeHidden();
  await page.getByRole('button', { name: 'Run the verification' }).click();
  await expect(page.getByText(/^63 of 63 cases within tolerance$/)).toBeVisible({
    timeout: 45_000,
  });
  const standardization = page
    .getByRole('row', { name: /Standardization of sodium hydroxide with potassium hydrogen/ })
    .first();
  await expect(standardization).toContainText('0.10214');
  await expect(standardization).toContainText('within ±');
  await expect(page.getByText('Vine Measure 0.1.0')).toBeVisible();
  await expectAccessible(page);
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByText('Signature')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Run it again' })).toBeHidden();
});

test('a certified result is drawn a million times beside its budget', async ({ page }) => {
  await signInToDemo(page, 'Jasna');
  await page.getByRole('link', { name: 'Judge', exact: true }).click();
  await page.getByRole('link', { name: 'certificate 0416-1' }).click();
  await page.getByRole('button', { name: 'Draw a million trials' }).click();
  const table = page.getByRole('table', { name: 'Law of propagation and Monte Carlo' });
  const molarity = table.getByRole('row', { name: /molarity/ }).getByRole('cell');
  await expect(molarity).toHaveCount(3, { timeout: 30_000 });
  const [, propagated = '', drawn = ''] = await molarity.allInnerTexts();
  expect(propagated).toMatch(/^0\.10\d{4}$/);
  expect(Math.abs(Number(drawn) - Number(propagated))).toBeLessThan(0.00002);
  await expect(page.getByText(/^1,000,000 trials/)).toBeVisible();
  await expectAccessible(page);
});

test('a result out of line brings what would explain it, and a correction silences it', async ({
  page,
}) => {
  await signInToDemo(page, 'Mirela');
  await page.goto('/titrate/set-up');
  await page.getByLabel('The first titration is rough').uncheck();
  await page.getByRole('button', { name: 'To the bench' }).click();
  await enter(page, /net mass, flask 1/, '0.4800');
  await enter(page, /net mass, flask 2/, '0.4800');
  const first = page.getByRole('region', { name: 'Flask 1' });
  await first.getByRole('button', { name: /^Titrate/ }).click();
  for (const [flask, final] of [
    ['1', '23.70'],
    ['2', '24.72'],
  ] as const) {
    await enter(page, new RegExp(`initial reading, flask ${flask}`), '0.20');
    await enter(page, new RegExp(`final reading, flask ${flask}`), final);
  }
  await page.getByLabel('If it stands, why?').fill('read twice');
  await page.getByRole('button', { name: /^Keep/ }).click();
  await expect(page.getByTestId('molarity-2')).toBeVisible();
  const bench = page.url();
  await page.goto(`${bench}/judge`);
  const explanations = page.getByRole('region', { name: 'What would explain it' });
  await expect(explanations).toContainText('A burette reading is wrong');
  await expect(explanations).toContainText('24.72 mL, stands for 23.72 mL');
  await expectAccessible(page);

  await page.goto(bench);
  await page.getByRole('button', { name: /Correct the final reading of flask 2/ }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('It should be').fill('23.72');
  await dialog.getByLabel('Why').fill('a mark miscounted');
  await dialog.getByRole('button', { name: 'Correct it' }).click();
  await expect(page.getByText('all entries kept')).toBeVisible();
  await page.goto(`${bench}/judge`);
  await expect(page.getByRole('heading', { name: /^Judgement/ })).toBeVisible();
  await expect(explanations).toBeHidden();
});
