import { expect } from '@playwright/test';
import { expectAccessible, signInToDemo, test } from './laboratory';

test('the planner offers the ways of the shelf, asks which percentage is meant, and leads to the form', async ({
  page,
}) => {
  await signInToDemo(page, 'Jasna');
  await page.goto('/prepare');
  await page.getByRole('link', { name: 'Plan the ways to it' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Plan a solution' })).toBeFocused();
  const ways = page.getByRole('region', { name: 'Ways to it' }).getByRole('article');
  await expect(ways.first()).toContainText('4.1 g');
  await expectAccessible(page);

  const concentrate = page.getByLabel('Concentrate of 50 %');
  await concentrate.selectOption('by-mass');
  await expect(ways.filter({ hasText: 'From the concentrate' })).toContainText('5.2 mL');
  await concentrate.selectOption('by-volume');
  await expect(ways.filter({ hasText: 'From the concentrate' })).toContainText('8.0 mL');

  await page.getByLabel('Molarity').fill('0,02');
  await page.getByLabel('Volume').fill('250');
  await page.getByLabel('What for').selectOption('exact');
  await expect(ways.first()).toContainText('Dilute: bottle 0409');
  await expect(ways.first()).toContainText('50.00 mL');
  await expect(ways.last()).toContainText(/has not been standardized|is no standard/);
  await page.getByLabel('Molarity').fill('0');
  await expect(page.getByText('Write a molarity and a volume above 0.')).toBeVisible();

  await page.getByLabel('Molarity').fill('0.02');
  await ways.first().getByRole('link', { name: 'Write it down' }).click();
  await expect(page.getByLabel('Nominal molarity')).toHaveValue(/^0\.020/);
  await expect(page.getByLabel('Note')).toHaveValue('Dilute: bottle 0409');
});

test('new glassware takes its tolerance from its class, and plans choose from it', async ({
  page,
}) => {
  await signInToDemo(page, 'Jasna');
  await page.goto('/equipment');
  await page.getByRole('button', { name: 'Add glassware' }).click();
  const form = page.getByRole('form', { name: 'New glassware' });
  await form.getByLabel('Name').fill('Flask F20');
  await form.getByLabel('Volume').fill('2000');
  await form.getByLabel('Class printed on it').selectOption('B');
  await expect(form.getByLabel('Tolerance, plus or minus')).toHaveValue('1.2');
  await expectAccessible(page);
  await form.getByLabel('Tolerance, plus or minus').fill('900');
  await form.getByRole('button', { name: 'Add the glassware' }).click();
  await expect(form.getByRole('alert').first()).toContainText('small part of the volume');
  await form.getByLabel('Class printed on it').selectOption('A');
  await form.getByRole('button', { name: 'Add the glassware' }).click();
  await expect(page.getByRole('cell', { name: 'Flask F20' })).toBeVisible();
  await page.goto('/prepare/plan');
  await page.getByLabel('Substance').selectOption('potassium-hydrogen-phthalate');
  await page.getByLabel('Volume').fill('1500');
  await expect(page.getByRole('article').first()).toContainText('with Flask F20');
});
