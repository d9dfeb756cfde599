import { expect } from '@playwright/test';
import { certify, enter, expectAccessible, signPerformed, test, titrate } from './laboratory';

test.use({ beginsAs: 'empty' });

/**
 * EURACHEM/CITAC Guide CG 4, example A2, entered through the real interface of an empty laboratory: 0.3888 g of
 * potassium hydrogen phthalate take 18.64 mL; the guide finds 0.1021 mol/L.
 */
test('the published standardization, from an empty laboratory to 0.1021 mol/L', async ({
  page,
  laboratory,
}) => {
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Begin a new laboratory' })).toBeVisible();
  await expectAccessible(page);
  await page.getByLabel('One-time code').fill('WRONG-CODE');
  await page.getByLabel('Laboratory').fill('Hillside press house');
  await page.getByLabel('Your name').fill('Renata Oss');
  await page.getByLabel('Time zone').fill('Europe/Vienna');
  await page.getByLabel('Password').fill('a long enough secret');
  await page.getByRole('button', { name: 'Begin the laboratory' }).click();
  await expect(page.getByText('Take the code from the terminal')).toBeVisible();
  await page.getByLabel('One-time code').fill(laboratory.code);
  await page.getByRole('button', { name: 'Begin the laboratory' }).click();

  const firstDay = page.getByRole('region', { name: 'The first day' });
  await expect(
    firstDay.getByRole('heading', { name: /The shelf is empty: five steps/ }),
  ).toBeVisible();
  await expect(firstDay.getByRole('listitem')).toHaveCount(5);
  await expectAccessible(page);
  await page.getByRole('link', { name: 'Add a lot' }).click();
  await page.getByLabel('Lot number').fill('KHP-1');
  await page.getByLabel('Supplier').fill('Reference house');
  await page.getByLabel('Purity', { exact: true }).fill('120');
  await page.getByLabel('Purity, plus or minus').fill('0,05');
  await page.getByRole('button', { name: 'Add the lot' }).click();
  await expect(page.getByText('Nothing is purer than 100 %')).toBeVisible();
  await page.getByLabel('Purity', { exact: true }).fill('100,00');
  await page.getByLabel('The certificate states a molar mass').check();
  await page.getByLabel('Molar mass', { exact: true }).fill('204.2212');
  await page.getByLabel('Its standard uncertainty').fill('0.0038');
  await page.getByRole('button', { name: 'Add the lot' }).click();
  await expect(page.getByRole('cell', { name: 'KHP-1' })).toBeVisible();

  await page.getByRole('button', { name: 'Add a lot' }).click();
  await page.getByLabel('Substance').selectOption({ label: 'sodium hydroxide' });
  await page.getByLabel('Lot number').fill('NaOH-1');
  await page.getByLabel('Supplier').fill('Reference house');
  await page.getByLabel('Purity', { exact: true }).fill('98');
  await page.getByLabel('Purity, plus or minus').fill('1');
  await page.getByRole('button', { name: 'Add the lot' }).click();
  await expect(page.getByRole('cell', { name: 'NaOH-1' })).toBeVisible();

  await page.getByRole('link', { name: 'Equipment' }).click();
  await page.getByRole('button', { name: 'Add equipment…' }).click();
  await page.getByRole('menuitem', { name: /^A balance/ }).click();
  await page.getByLabel('Name').fill('Analytical balance');
  await page.getByLabel('Repeatability').fill('0');
  await page.getByLabel('Linearity').fill('0.00015');
  await page.getByRole('button', { name: 'Add the balance' }).click();
  await expect(page.getByRole('cell', { name: 'Analytical balance' })).toBeVisible();
  await page.getByRole('button', { name: 'Add equipment…' }).click();
  await page.getByRole('menuitem', { name: /^A burette/ }).click();
  await page.getByLabel('Name').fill('Piston burette');
  await page.getByLabel('Kind').selectOption('piston');
  await page.getByLabel('Capacity').fill('20');
  await page.getByLabel('Step of the display').fill('0.01');
  await page.getByLabel('Tolerance, plus or minus').fill('0.03');
  await page.getByLabel('One drop').fill('0.01');
  await page.getByRole('button', { name: 'Add the burette' }).click();
  await expect(page.getByRole('cell', { name: 'Piston burette' })).toBeVisible();

  // The guide does nothing about the air, and takes the series by itself.
  await page.getByRole('link', { name: 'House rules' }).click();
  await page.getByLabel('The lift of the air on a weighed standard is').selectOption('left-out');
  await page.getByLabel('The scatter of a series is').selectOption('own');
  await page.getByLabel('Why they change').fill('as in the guide');
  await page.getByRole('button', { name: 'Set these rules' }).click();
  await expect(page.getByLabel('Why they change')).toBeDisabled();

  await page.getByRole('link', { name: 'Prepare', exact: true }).click();
  await expect(page.getByRole('article')).toContainText('4.1 g');
  await page.getByRole('link', { name: 'Write down what was made' }).click();
  await expect(page.getByText(/about 4\.1 g of lot/)).toBeVisible();
  await page.getByRole('button', { name: 'Put it on the shelf' }).click();
  await expect(firstDay.getByRole('listitem').filter({ hasText: ': done' })).toHaveCount(3);
  await expect(firstDay.getByRole('link', { name: 'Standardize it' })).toBeVisible();
  await page.getByRole('link', { name: /bottle 0001.*not standardized/ }).click();
  await page.getByRole('link', { name: 'Standardize', exact: true }).click();

  await page.getByLabel('Known RSD').fill('0.05');
  await page.getByLabel('The first titration is rough').uncheck();
  await page.getByRole('button', { name: 'To the bench' }).click();
  await enter(page, /net mass, flask 1/, '0.3888');
  await titrate(page, 1);
  await enter(page, /initial reading, flask 1/, '0.00');
  await enter(page, /final reading, flask 1/, '18,64');
  await expect(page.getByTestId('molarity-1')).toHaveText('0.10214');

  await page.getByRole('link', { name: 'Judge it' }).click();
  await expect(page.getByText('c20 °C = 0.10214±0.00020 mol/L')).toBeVisible();
  await expect(page.getByText('Not corrected: buoyancy +0.058 %')).toBeVisible();
  const told = 'The first titration: counts if it agrees (house rule: is rough and left out).';
  await expect(page.getByText(told)).toBeVisible();
  // A laboratory of one signs twice, and its certificate says what that is worth.
  await signPerformed(page, 'a long enough secret');
  await page.getByLabel('Why all the same').fill('worked example with a single titration');
  await certify(page, 'a long enough secret');
  await expect(page.getByRole('heading', { name: 'Certified' })).toBeVisible();
  const certificate = page.getByRole('region', { name: 'Certificate' });
  await expect(certificate).toContainText(told);
  await expect(certificate).toContainText('Not independently checked');
  await page.getByRole('link', { name: 'Shelf' }).click();
  await expect(page.getByRole('link', { name: /bottle 0001.*0\.10214.*certified/ })).toBeVisible();
  await expect(firstDay).toBeHidden();
});
