import { expect } from '@playwright/test';
import {
  choose,
  enter,
  expectAccessible,
  expectNoScrolling,
  inAir,
  signInToDemo,
  signOut,
  startRun,
  test,
  titrate,
} from './laboratory';

const ONE_PIXEL = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

test('by keyboard: a reading before a doubtful drop, an overshot end point, one taken back, large figures', async ({
  page,
}) => {
  await signInToDemo(page, 'Tobin');
  await startRun(page);
  await enter(page, /net mass, flask 1/, '0.4800');
  await enter(page, /net mass, flask 2/, '0.4800');
  await titrate(page, 1);
  await enter(page, /initial reading, flask 1/, '0.00');
  await enter(page, /final reading, flask 1/, '23.40');
  // The first one is rough; the second one is looked at closely.
  await expect(page.getByRole('group', { name: 'End point of flask 1' })).toBeVisible();
  await page.keyboard.press('g');
  await expect(page.getByText('End point of flask 1: just there.')).toBeVisible();
  await page.keyboard.press('c');
  const final = page.getByRole('textbox', { name: /final reading, flask 2/ });
  await expect(final).toBeFocused();
  await page.keyboard.press('l');
  await expect(page.getByLabel('Large figures')).toContainText('46.80');
  await expectAccessible(page);
  await expectNoScrolling(page);
  await page.keyboard.press('l');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('does an incident matter?');
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  // The hands stay on the keyboard: the entry has the focus again.
  await expect(final).toBeFocused();

  await final.fill('46.76');
  await page.keyboard.press('Shift+Enter');
  await expect(page.getByText('written before a drop: 46.76')).toBeVisible();
  await enter(page, /final reading, flask 2/, '46.84');
  const asRead = 23.44;
  const massG = 0.48 * inAir(1.636);
  const c = (volumeMl: number): string => ((1000 * massG * 0.9998) / 204.222 / volumeMl).toFixed(5);
  await expect(page.getByTestId('molarity-2')).toHaveText(c(asRead));
  await expect(page.getByRole('group', { name: 'End point of flask 2' })).toBeVisible();
  await page.keyboard.press('x');
  await expect(page.getByRole('region', { name: 'Flask 2' })).toContainText('far over');
  // The end lies half way between 46.76 and 46.84.
  await expect(page.getByTestId('molarity-2')).toHaveText(c(asRead - 0.04));
  await expect(page.getByRole('region', { name: 'Flask 2' })).toContainText('counts');

  await page.keyboard.press('z');
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Why').fill('it faded after all');
  await dialog.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByText('written before a drop: 46.84')).toBeVisible();
  await enter(page, /final reading, flask 2/, '46.90');
  await expect(page.getByTestId('molarity-2')).toHaveText(c(23.5));
});

test('the balance beside the bench: what stands still on its display goes into the entry', async ({
  page,
}) => {
  await signInToDemo(page, 'Mirela');
  await startRun(page);
  await page.keyboard.press('d');
  const dialog = page.getByRole('dialog', { name: 'Analytical balance A1' });
  await expect(dialog).toContainText('net mass, flask 1');
  const press = (name: string) => dialog.getByRole('button', { name, exact: true }).click();
  // The stand-in takes its time to settle, as a balance does.
  const settled = () =>
    expect(dialog.getByText('stands still, doors shut')).toBeVisible({ timeout: 20_000 });
  await press('Boat on');
  await press('Shut the doors');
  await settled();
  await press('Tare');
  for (let i = 0; i < 4; i += 1) await press('A spoonful');
  await press('Shut the doors');
  await settled();
  await expectAccessible(page);
  await press('Take reading');
  await expect(dialog).toBeHidden();
  const entry = page.getByRole('textbox', { name: /net mass, flask 1/ });
  await expect(entry).toHaveValue(/^0\.\d{4}$/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Flask 1' })).toContainText(/0\.\d{4}/);
});

test('paused and handed over, a second reader confirms, the sheet tells it all', async ({
  page,
}) => {
  await signInToDemo(page, 'Tobin');
  const bench = await startRun(page);
  await enter(page, /net mass, flask 1/, '0.4800');
  await titrate(page, 1);
  await enter(page, /initial reading, flask 1/, '0.10');
  await enter(page, /final reading, flask 1/, '23.60');
  await expect(page.getByRole('region', { name: 'Flask 1' })).toContainText('23.50');
  await page.getByRole('button', { name: 'More…' }).click();
  await expectAccessible(page);
  await page.getByRole('menuitem', { name: /Pause/ }).click();
  const pause = page.getByRole('dialog');
  await pause.getByLabel('Handed over to').selectOption({ label: 'Jasna Orlik' });
  await pause.getByLabel('What the next person should know').fill('flask 2 is still to be weighed');
  await pause.getByRole('button', { name: 'Pause it' }).click();
  await expect(page.getByText(/This run is paused/)).toBeVisible();
  await expect(page.getByText('all entries kept')).toBeVisible();
  await signOut(page);

  await page.getByRole('button', { name: /Jasna/ }).click();
  await expect(page.getByRole('button', { name: 'Sign out' })).toBeVisible();
  await page.goto(bench);
  await expect(page.getByText(/for Jasna Orlik: flask 2 is still to be weighed/)).toBeVisible();
  await page.getByRole('button', { name: 'Go on with it' }).click();
  await expect(page.getByRole('textbox', { name: /net mass, flask 2/ })).toBeVisible();
  await page.getByRole('button', { name: /Correct the final reading of flask 1/ }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'I have read the same' }).click();
  await expect(page.getByRole('region', { name: 'Flask 1' })).toContainText(
    'read by a second person too',
  );
  await enter(page, /net mass, flask 2/, '0.4810');
  // What was in the burette is gone: it is read again, not carried on.
  await expect(page.getByText(/Rinse and fill the burette/)).toBeVisible();
  await expect(page.getByRole('button', { name: /Carry on/ })).toBeHidden();

  await enter(page, /initial reading, flask 2/, '0.05');
  await page.getByRole('button', { name: 'More…' }).click();
  await page.getByRole('menuitem', { name: 'Photograph a flask…' }).click();
  const picture = { name: 'shade.png', mimeType: 'image/png', buffer: ONE_PIXEL };
  await page.getByRole('dialog').getByLabel('Picture').setInputFiles(picture);
  await expect(page.getByAltText(/flask 1, photographed as the shade to match/)).toBeVisible();
  await expectAccessible(page);

  await page.getByRole('button', { name: 'More…' }).click();
  await page.getByRole('menuitem', { name: 'Run sheet, to print' }).click();
  await expect(page.getByRole('heading', { level: 1, name: /Run sheet/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /^1 0\.4800 g/ })).toContainText('23.60 ✓');
  await expect(page.getByRole('row', { name: /^3 about/ })).toBeVisible();
  await expectAccessible(page);
});

test('house rules and methods of one’s own: set by who may, and kept by the runs that began with them', async ({
  page,
}) => {
  await signInToDemo(page, 'Tobin');
  await page.getByRole('link', { name: 'House rules' }).click();
  await expect(page.getByText('Oxalate is titrated with permanganate')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Set these rules' })).toBeHidden();
  await signOut(page);

  await page.getByRole('button', { name: /Mirela/ }).click();
  await page.getByRole('link', { name: 'House rules' }).click();
  await page.getByLabel('Titrations at most').fill('2');
  await page.getByLabel('Why they change').fill('tried out');
  await page.getByRole('button', { name: 'Set these rules' }).click();
  await expect(page.getByText('at least as many titrations as have to agree')).toBeVisible();
  await page.getByLabel('Titrations at most').fill('5');
  await page.getByLabel('The end point lasts at least').fill('15');
  // At the end of the page nothing lies half under its foot.
  await page.evaluate(() => {
    window.scrollTo(0, document.body.scrollHeight);
  });
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Set these rules' }).click();
  await expect(page.getByRole('button', { name: 'Set these rules' })).toBeDisabled();

  await page.getByRole('link', { name: 'Methods' }).click();
  await expectAccessible(page);
  await page
    .getByRole('link', {
      name: 'Copy and change hydroxide by potassium hydrogen phthalate',
      exact: true,
    })
    .click();
  await expect(page.getByText('Balances: 1.000 mol of titrant')).toBeVisible();
  await page.getByLabel('Name').fill('hydroxide by phthalate, as in the cellar');
  await page.getByLabel('Reaction, a line for each step').fill('C8H5O4^- + OH^- -> H2O');
  await expect(page.getByText(/C stands only on the left/)).toBeVisible();
  await page
    .getByLabel('Reaction, a line for each step')
    .fill('C8H5O4^- + OH^- -> C8H4O4^2- + H2O');
  const reactsAs = page.getByLabel('reacts as').last();
  await reactsAs.fill('H2C2O4');
  await expect(page.getByText('H2C2O4 does not take part')).toBeVisible();
  await reactsAs.fill('C8H5O4^-');
  await page.getByRole('button', { name: /^lithium hydroxide.*leave out/ }).click();
  await page.getByLabel('Colour wanted', { exact: true }).fill('');
  await page
    .getByLabel('Another rule that differs')
    .selectOption({ label: 'The end point lasts at least' });
  await page.getByLabel('The end point lasts at least', { exact: true }).fill('45');
  await page.getByLabel('Why it is written').fill('our press house is draughty');
  await expectAccessible(page);
  const write = page.getByRole('button', { name: 'Write this method' });
  await write.click();
  await expect(page.getByRole('alert')).toHaveText('This must be filled in.');
  await page.getByLabel('Colour wanted', { exact: true }).fill('shell pink');
  await page.getByLabel('Mass from').fill('0,45');
  await write.click();
  const written = { name: 'hydroxide by phthalate, as in the cellar', exact: true };
  await expect(page.getByRole('cell', written)).toBeVisible();

  await page.goto('/titrate/set-up');
  await choose(page, 'How', 'own: hydroxide by phthalate, as in the cellar, weighed');
  await page.getByRole('button', { name: 'To the bench' }).click();
  await enter(page, /net mass, flask 1/, '0.4800');
  await titrate(page, 1);
  await enter(page, /initial reading, flask 1/, '0.10');
  await expect(page.getByRole('button', { name: /Does it last 45 s/ })).toBeVisible();
  await expect(page.getByText('wanted: shell pink')).toBeVisible();
  await page.goto('/rules');
  await page.getByRole('button', { name: 'As they ship' }).click();
  await page.getByLabel('Why they change').fill('tried enough');
  await page.getByRole('button', { name: 'Set these rules' }).click();
  await expect(page.getByRole('button', { name: 'As they ship' })).toBeHidden();
});
