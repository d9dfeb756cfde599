import { expect } from '@playwright/test';
import { certify, enter, showTo, signInToDemo, signPerformed, test } from './laboratory';

test.use({ beginsAs: 'large' });

const BYTES_AT_MOST = 200_000;

test('among 5,000 bottles one is found, standardized and certified, and no answer is large', async ({
  page,
}) => {
  const large: string[] = [];
  page.on('response', (response) => {
    if (!response.url().includes('/api/records') && !response.url().includes('/api/stock')) return;
    void response
      .request()
      .sizes()
      .then(({ responseBodySize }) => {
        if (responseBodySize > BYTES_AT_MOST) large.push(response.url());
      });
  });
  await signInToDemo(page, 'Mirela');
  await expect(page.getByRole('link', { name: /bottle 0417/ }).first()).toBeVisible();
  // One that went long ago, by its code alone.
  const search = page.getByRole('searchbox', { name: 'Find any bottle' });
  await search.fill('201-0416');
  await page.getByRole('link', { name: '201-0416' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('201-0416');
  await expect(page.getByText('used up').first()).toBeVisible();
  await page.goBack();

  await search.fill('1-0418');
  await page.getByRole('link', { name: '1-0418', exact: true }).click();
  await page.getByRole('link', { name: /Standardize/ }).click();
  await page.getByLabel('The first titration is rough').uncheck();
  await page.getByRole('button', { name: 'To the bench' }).click();
  for (const flask of [1, 2, 3]) {
    await enter(page, new RegExp(`net mass, flask ${String(flask)}`), '0.4800');
  }
  for (const flask of [1, 2, 3]) {
    await enter(page, new RegExp(`initial reading, flask ${String(flask)}`), '0.00');
    await enter(page, new RegExp(`final reading, flask ${String(flask)}`), `23.5${String(flask)}`);
  }
  await page.getByRole('link', { name: 'Judge and certify' }).click();
  await signPerformed(page);
  await showTo(page, 'Jasna');
  await page
    .getByLabel('Why all the same')
    .fill('Its molarity is known well enough for no rough one.');
  await certify(page);
  await expect(page.getByRole('region', { name: 'Certificate' })).toContainText('3 averaged');
  // The same burette goes on with samples, from where it stands.
  await page.getByRole('link', { name: 'Titrate samples with it' }).click();
  await expect(
    page.getByLabel('Go on from 23.53 mL, where the last titration ended'),
  ).toBeChecked();
  await expect(page.getByRole('button', { name: /Titrant$/ })).toContainText('1-0418');
  await page.getByRole('navigation').getByRole('link', { name: 'Judge', exact: true }).click();
  await page.getByLabel('Which runs').selectOption('certified');
  await page.getByRole('searchbox', { name: 'Find a run' }).fill('1-0418');
  await expect(page.getByRole('row')).toHaveCount(2);
  await expect(page.getByRole('row').nth(1)).toContainText('1-0418');
  await page.getByLabel('Which runs').selectOption('abandoned');
  await expect(page.getByText('No run is found.')).toBeVisible();
  expect(large).toEqual([]);
});
