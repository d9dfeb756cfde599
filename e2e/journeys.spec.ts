import { expect } from '@playwright/test';
import {
  choose,
  enter,
  expectAccessible,
  expectNoScrolling,
  signInToDemo,
  signOut,
  test,
  titrate,
} from './laboratory';

test('weighing by difference, carrying over and correcting a shared reading', async ({ page }) => {
  await signInToDemo(page, 'Jasna');
  await page.goto('/titrate/set-up');
  await page.getByRole('button', { name: 'To the bench' }).click();

  await page.getByLabel('by difference').check();
  await page.getByRole('textbox', { name: /before, flask 1/ }).fill('20,4811');
  await page.getByRole('textbox', { name: /after, flask 1/ }).fill('20.4811');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Both masses are the same')).toBeVisible();
  // A vessel that was weighed empty, and then full.
  await page.getByRole('textbox', { name: /after, flask 1/ }).fill('20.9611');
  await page.keyboard.press('Enter');
  const first = page.getByRole('region', { name: 'Flask 1' });
  await expect(first).toContainText('0.4800');

  await page.getByLabel('tared').check();
  await enter(page, /net mass, flask 2/, '0.4790');
  // An empty field takes letters as commands: T titrates, W weighs another, C carries the last reading on.
  await expect(page.getByRole('textbox', { name: /net mass, flask 3/ })).toBeFocused();
  await page.keyboard.press('t');
  await expect(page.getByRole('textbox', { name: /initial reading, flask 1/ })).toBeFocused();
  await page.keyboard.press('w');
  await expect(page.getByRole('textbox', { name: /net mass, flask 3/ })).toBeFocused();
  await page.keyboard.press('t');
  await enter(page, /initial reading, flask 1/, '0.10');
  await enter(page, /final reading, flask 1/, '23.55');
  await expect(page.getByRole('textbox', { name: /initial reading, flask 2/ })).toBeFocused();
  await page.keyboard.press('c');
  await expect(page.getByText(/The end point is expected at 46\.\d\d/)).toBeVisible();
  await enter(page, /final reading, flask 2/, '46.98');
  await expect(page.getByTestId('molarity-2')).toHaveText(/^0\.100\d\d$/);

  await page.getByRole('button', { name: 'Correct the initial reading of flask 2, 23.55' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('also the other reading of flask 1: both change');
  await dialog.getByLabel('It should be').fill('47.00');
  await dialog.getByLabel('Why').fill('read again with the card');
  await dialog.getByRole('button', { name: 'Correct it' }).click();
  await expect(dialog.getByRole('alert')).toContainText('reads downwards');
  await dialog.getByLabel('It should be').fill('23.57');
  await dialog.getByRole('button', { name: 'Correct it' }).click();
  await expect(first).toContainText('23.47');
  await expect(page.getByRole('region', { name: 'Flask 2' })).toContainText('23.41');
});

test('on a shared tablet a reading waits for its own author', async ({ page, context }) => {
  await signInToDemo(page, 'Tobin');
  await page.goto('/titrate/set-up');
  await page.getByRole('button', { name: 'To the bench' }).click();
  await expect(page.getByRole('textbox', { name: /net mass, flask 1/ })).toBeVisible();
  const bench = page.url();
  await context.route('**/api/facts', (route) => route.abort());
  await enter(page, /net mass, flask 1/, '0.4800');
  await expect(page.getByText('1 kept here, to be sent')).toBeVisible();
  await signOut(page);
  await context.unroute('**/api/facts');

  await page.getByRole('button', { name: /Mirela/ }).click();
  await expect(page.getByRole('link', { name: 'Mirela Aschbach' })).toBeVisible();
  await expect(page.getByText('1 kept here, to be sent')).toBeVisible();
  await signOut(page);
  await page.getByRole('button', { name: /Tobin/ }).click();
  await expect(page.getByText('all entries kept')).toBeVisible();
  await page.goto(bench);
  await expect(page.getByRole('region', { name: 'Flask 1' })).toContainText('0.4800');
});

test('a new person signs in with name and password; a wrong one is refused without saying which', async ({
  page,
}) => {
  await signInToDemo(page, 'Mirela');
  await page.getByRole('link', { name: 'People' }).click();
  await page.getByRole('button', { name: 'Add a person' }).click();
  await page.getByLabel('Name').fill('Pavo Keller');
  await page.getByLabel('First password').fill('short');
  await page.getByRole('button', { name: 'Add the person' }).click();
  await expect(page.getByText('at least 10 characters')).toBeVisible();
  await page.getByLabel('First password').fill('a long enough secret');
  await page.getByRole('button', { name: 'Add the person' }).click();
  await expect(page.getByRole('cell', { name: 'Pavo Keller', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Add a person' }).click();
  await page.getByLabel('Name').fill('Pavo Keller');
  await page.getByLabel('First password').fill('a long enough secret');
  await page.getByRole('button', { name: 'Add the person' }).click();
  await expect(page.getByText('This name is taken.')).toBeVisible();
  await signOut(page);

  await page.getByLabel('Name').fill('Pavo Keller');
  await page.getByLabel('Password').fill('not the right one');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByText('The name or the password is wrong.')).toBeVisible();
  await page.getByLabel('Password').fill('a long enough secret');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'People' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Add a person' })).toBeHidden();
});

test('overdue equipment asks for a reason before the run, and a taken code is said at its field', async ({
  page,
}) => {
  await signInToDemo(page, 'Jasna');
  await page.goto('/titrate/set-up');
  await choose(page, 'Burette', 'Burette G2');
  await expect(page.getByText(/The calibration of Burette G2 was due on/)).toBeVisible();
  await page.getByRole('button', { name: 'To the bench' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'calibration' }).last()).toBeVisible();
  await page
    .getByLabel('Why it goes on all the same')
    .fill('its replacement is at the calibration');
  await page.getByLabel('Room temperature').fill('warm');
  await page.getByRole('button', { name: 'To the bench' }).click();
  await expect(page.getByText('Write a plain number, such as 7.10.')).toBeVisible();
  await page.getByLabel('Room temperature').fill('21,5');
  await page.getByRole('button', { name: 'To the bench' }).click();
  await expect(page.getByText(/Weigh about 0\.24 g of KHP into flask 1/)).toBeVisible();

  await page.goto('/prepare/write-down');
  await page.getByLabel('Bottle code').fill('0416');
  await page.getByLabel('Nominal molarity').fill('25');
  await page.getByRole('button', { name: 'Put it on the shelf' }).click();
  await expect(page.getByText('No aqueous solution is stronger than 20 mol/L.')).toBeVisible();
  await page.getByLabel('Nominal molarity').fill('0,1');
  await page.getByRole('button', { name: 'Put it on the shelf' }).click();
  await expect(page.getByText('choose the next one').first()).toBeVisible();
});

test('an incident is judged on this run’s numbers, written down, and its flask void; a colour must last', async ({
  page,
}) => {
  await signInToDemo(page, 'Tobin');
  await page.goto('/titrate/set-up');
  await page.getByRole('button', { name: 'To the bench' }).click();
  await enter(page, /net mass, flask 1/, '0.4800');
  await titrate(page, 1);
  await expect(page.getByRole('textbox', { name: /initial reading, flask 1/ })).toBeFocused();
  await page.keyboard.press('b');
  await expect(page.getByRole('dialog')).toContainText('the bottom of the meniscus');
  await page.getByRole('dialog').getByLabel('Tip full').uncheck();
  await page.getByLabel(/What was off/).fill('a bubble, let out');
  await expectAccessible(page);
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /Write it down/ })
    .click();
  await expect(page.getByRole('button', { name: /Check burette/ })).toBeHidden();
  await enter(page, /initial reading, flask 1/, '0.10');
  await expect(page.getByRole('textbox', { name: /final reading, flask 1/ })).toBeFocused();
  await page.keyboard.press('p');
  await expect(page.getByRole('timer')).toContainText('s to go');
  await expectNoScrolling(page);
  await page.keyboard.press('f');
  await expect(page.getByRole('timer')).toBeHidden();

  await page.getByRole('button', { name: 'Does it matter?' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('What happened').fill('washed');
  await dialog.getByLabel(/^Walls or tip washed down/).check();
  await expect(dialog.getByRole('status')).toContainText('Carry on: it does not matter.');
  await dialog.getByLabel('What happened').fill('bubble');
  await dialog.getByLabel(/^A bubble in the tip/).check();
  await expect(dialog.getByRole('status')).toContainText(/too low, by 0\.\d+ to \d/);
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Write it down and void it' }).click();
  const flask = page.getByRole('region', { name: 'Flask 1' });
  await expect(flask).toContainText('A bubble in the tip at the start, gone at the end.');
  await expect(flask).toContainText('void');
  await expect(page.getByText('all entries kept')).toBeVisible();
  await page.goto(`${page.url()}/judge`);
  await expect(page.getByText(/Not so: “Tip full.* a bubble, let out/)).toBeVisible();
});

test('an abandoned run keeps its entries and takes no more', async ({ page }) => {
  await signInToDemo(page, 'Tobin');
  await page.goto('/titrate/set-up');
  await page.getByRole('button', { name: 'To the bench' }).click();
  await enter(page, /net mass, flask 1/, '0.4800');
  await titrate(page, 1);
  await page.getByRole('button', { name: 'More…' }).click();
  await page.getByRole('menuitem', { name: 'Abandon…' }).click();
  await page.getByRole('dialog').getByLabel('Why').fill('the stopcock leaks');
  await page.getByRole('dialog').getByRole('button', { name: 'Abandon it' }).click();
  await expect(page.getByText('This run is abandoned. Its figures are frozen.')).toBeVisible();
  await expect(page.getByRole('form', { name: 'Next entry' })).toBeHidden();
  await expect(page.getByRole('region', { name: 'Flask 1' })).toContainText('0.4800');
});
