import { readFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import { DEMO_PASSWORD } from '#contract';
import {
  certify,
  choose,
  enter,
  expectAccessible,
  expectNoScrolling,
  showTo,
  signInToDemo,
  signPerformed,
  test,
  titrate,
} from './laboratory';

test('every screen of the demo opens, moves focus to its heading, and axe finds nothing serious', async ({
  page,
}) => {
  await signInToDemo(page, 'Mirela');
  await expectAccessible(page);
  for (const [link, heading] of [
    ['Prepare', 'Prepare'],
    ['Titrate', 'Titrate'],
    ['Judge', 'Judge'],
    ['Samples', 'Samples'],
    ['Lots', 'Lots'],
    ['Equipment', 'Equipment'],
    ['Verification', 'Verification'],
    ['People', 'People'],
    ['History', 'History'],
  ] as const) {
    await page.getByRole('link', { name: link, exact: true }).click();
    await expect(page.getByRole('heading', { level: 1, name: heading })).toBeFocused();
    await expectAccessible(page);
  }
  await page.getByLabel('Which entries').selectOption('signatures');
  const entries = page.getByRole('list', { name: 'Entries' });
  await expect(entries.getByRole('listitem').filter({ hasNotText: 'signed' })).toHaveCount(0);
  await expect(entries).toContainText('certificate 0414-1 withdrawn');
  await page.getByRole('button', { name: 'Verify the log' }).click();
  await expect(page.getByText(/^Whole: \d+ entries\.$/)).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('link', { name: 'People', exact: true }).click();
  await page.getByRole('button', { name: 'Add a person' }).click();
  await expectAccessible(page);
  for (const [path, heading] of [
    ['/prepare/write-down', 'Write down a solution'],
    ['/prepare/day', 'The day’s work'],
  ] as const) {
    await page.goto(path);
    await expect(page.getByRole('heading', { level: 1, name: heading })).toBeVisible();
    await expectAccessible(page);
  }
  await page.goto('/lots');
  await page.getByRole('link', { name: 'SC-1501' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Lot SC-1501' })).toBeFocused();
  await expectAccessible(page);
  await page.goto('/titrate/set-up');
  await expect(page.getByText('about 0.48 g KHP')).toBeVisible();
  await expectAccessible(page);
  await page.goto('/nowhere');
  await expect(page.getByRole('heading', { name: 'There is nothing here' })).toBeVisible();
});

test('volumes are corrected by what a thermometer reads of the titrant, and Judge says as measured', async ({
  page,
}) => {
  await signInToDemo(page, 'Mirela');
  await page.goto('/titrate/set-up');
  await expect(page.getByText('about 0.48 g KHP')).toBeVisible();
  await choose(page, 'Temperature of the titrant', 'Thermometer T1');
  await expect(page.getByText('Volumes are corrected to 20 °C.')).toBeVisible();
  // Nothing is taken for measured that nobody typed.
  await page.getByRole('button', { name: 'To the bench' }).click();
  await expect(page.getByText('Missing: reading, in °C.')).toBeVisible();
  await page.getByLabel('Reading', { exact: true }).fill('25,1');
  await page.getByLabel('Plus or minus').fill('0.5');
  await page.getByRole('button', { name: 'To the bench' }).click();
  await enter(page, /net mass, flask 1/, '0.4800');
  await titrate(page, 1);
  await enter(page, /initial reading, flask 1/, '0.00');
  await enter(page, /final reading, flask 1/, '23.40');
  await page.goto(`${page.url()}/judge`);
  // The certificate of the thermometer takes 0.1 °C off.
  await expect(page.getByText(/No titration counts yet/)).toBeVisible();
  await page.goto('/judge');
  await page.getByRole('link', { name: 'certificate 0409-2' }).click();
  await expect(
    page
      .getByText(/As measured at 24.6 °C: 0\.\d+; temperature \+0\.099 %; buoyancy \+0\.058 %/)
      .first(),
  ).toBeVisible();
  await page.getByText('How the scatter is pooled').click();
  await expect(page.getByText(/it may be pooled|is not pooled/)).toBeVisible();
  await expectAccessible(page);
});

test('a half-done run is finished by keyboard, judged, certified and labelled', async ({
  page,
}) => {
  await signInToDemo(page, 'Mirela');
  const row = page.getByRole('listitem').filter({ hasText: /^0417/ });
  await row.getByRole('link', { name: 'Go on titrating' }).click();
  // The shelf says the same sentence: the bench is there when its entry field is.
  await expect(page.getByRole('form', { name: 'Next entry' })).toBeVisible();
  await expect(page.getByText(/^Refill: flask 3 needs about/)).toBeVisible();
  await expectNoScrolling(page);
  await expectAccessible(page);

  // The molarity of the bottle is near 0.1017 mol/L: the final readings follow from the masses on the screen.
  let lastReading = 0;
  for (const flask of [3, 4]) {
    await enter(page, new RegExp(`initial reading, flask ${String(flask)}`), '0,10');
    const sentence = await page.getByText(/The end point is expected at/).innerText();
    const expected = /expected at (\d+\.\d+)/.exec(sentence)?.[1] ?? '';
    await expectNoScrolling(page);
    await enter(page, new RegExp(`final reading, flask ${String(flask)}`), expected);
    lastReading = Number(expected);
  }
  await expect(page.getByText(/^You may stop: 3 titrations agree within/)).toBeVisible();
  await expect(page.getByText('all entries kept')).toBeVisible();
  await page.getByRole('link', { name: 'Judge and certify' }).click();
  await expectAccessible(page);

  await page.getByText('End point', { exact: true }).click();
  await expect(page.getByText('end point of flask 2')).toBeVisible();
  await page.getByText('Every step, flask by flask').click();
  await expect(page.getByText('molarity from flask 4')).toBeVisible();

  const signatures = page.getByRole('region', { name: 'Signatures' });
  await page.getByLabel('Your password').fill('grapes on grass');
  await page.getByRole('button', { name: 'Sign as performed' }).click();
  await expect(page.getByRole('alert').first()).toContainText('not your password');
  await signPerformed(page);
  await expect(signatures).toContainText('somebody else has it authorized');

  await showTo(page, 'Jasna');
  await expect(signatures).toContainText('Mirela Aschbach');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Give it back…' }).click();
  await page.getByLabel('Remarks').fill('Was the burette dry outside?');
  await page.getByRole('dialog').getByRole('button', { name: 'Give it back' }).click();
  await expect(signatures).toContainText('Was the burette dry outside?');
  await expect(page.getByRole('button', { name: 'Certify the molarity' })).toBeHidden();

  await showTo(page, 'Mirela');
  await page.getByRole('button', { name: 'Answer…' }).click();
  await page.getByRole('textbox', { name: 'Answer' }).fill('It was wiped before each reading.');
  await page.getByRole('dialog').getByRole('button', { name: 'Answer' }).click();
  await expect(signatures).toContainText('It was wiped');

  await showTo(page, 'Jasna');
  await certify(page);
  const certificate = page.getByRole('region', { name: 'Certificate' });
  await expect(certificate).toContainText('3 averaged of 4 made');
  await expect(certificate).toContainText('the same figures');
  await expectAccessible(page);
  await page.getByRole('link', { name: 'Print a label' }).click();
  await expect(page.getByRole('article')).toContainText('use by');
  await expect(page.getByRole('article')).toContainText('0417');
  await expectAccessible(page);
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('navigation', { name: 'Stages of the work' })).toBeHidden();
  await expect(page.getByRole('article')).toBeVisible();
  await page.emulateMedia({ media: 'screen' });

  await page.getByRole('link', { name: 'To the bottle' }).click();
  await expectAccessible(page);
  await page.getByRole('link', { name: 'Shelf' }).click();
  await expect(page.getByRole('link', { name: /bottle 0417.*certified/ })).toBeVisible();

  // The certificate itself: on paper, as a file, computed again.
  await page.getByRole('link', { name: /bottle 0417.*certified/ }).click();
  await page.getByRole('link', { name: 'certificate 0417-1' }).first().click();
  await expect(page.getByText('It holds to')).toBeVisible();
  const proof = page.getByRole('complementary', { name: 'Proof' });
  await expect(proof).toContainText('The file is as it was issued.');
  await proof.getByRole('button', { name: 'Compute it again' }).click();
  await expect(proof).toContainText(/Identical: \d+ figures/);
  await expectAccessible(page);
  const saving = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save the PDF' }).click();
  const saved = readFileSync(await (await saving).path());
  expect(saved.subarray(0, 5).toString()).toBe('%PDF-');
  const sha256 = /[0-9a-f]{64}/.exec(await proof.innerText())?.[0] ?? '';
  await page.goto(`${page.url()}#${sha256}`);
  await expect(proof).toContainText('The code on the paper is that of this file.');

  // The day after: flask 4 was not read as it stands.
  await page.getByRole('button', { name: 'Withdraw it…' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('What was wrong').fill('Flask 4 was read too low.');
  await dialog.getByLabel('Your password').fill(DEMO_PASSWORD);
  await dialog.getByRole('button', { name: 'Withdraw it' }).click();
  await expect(page.getByText('Withdrawn by Jasna Orlik')).toBeVisible();
  await page.getByRole('link', { name: 'To the judgement' }).click();
  const putRight = page.getByRole('region', { name: 'Put right' });
  await expect(putRight).toContainText('No entry has been put right yet');
  await expectAccessible(page);
  await putRight.getByRole('link', { name: 'Put it right at the bench' }).click();
  await page.getByRole('button', { name: /Correct the final reading of flask 4/ }).click();
  await dialog.getByLabel('It should be').fill((lastReading + 0.02).toFixed(2));
  await dialog.getByLabel('Why').fill('Read too low.');
  await dialog.getByRole('button', { name: 'Correct it' }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByText('all entries kept')).toBeVisible();
  await page.goto(`${page.url()}/judge`);
  await expect(putRight).toContainText(/moved by [+−]\d+\.\d+ %/);
  await showTo(page, 'Mirela');
  await signPerformed(page);
  await showTo(page, 'Jasna');
  await certify(page);
  await page.getByRole('link', { name: 'The whole certificate' }).click();
  await expect(page.getByText('Takes the place of')).toBeVisible();
  await page.goto(page.url().replace('0417-2', '0417-1'));
  await expect(
    page.getByRole('link', { name: 'Certificate 0417-2 takes its place' }),
  ).toBeVisible();
  await page.goto('/');
  await page.getByRole('link', { name: /bottle 0417.*certified/ }).click();
  await expect(
    page.getByText('The label on the bottle states what holds no longer.'),
  ).toBeVisible();
});

test('who may not certify is told who may', async ({ page }) => {
  await signInToDemo(page, 'Tobin');
  await page.goto('/titrate/set-up');
  await page.getByRole('button', { name: 'To the bench' }).click();
  await enter(page, /net mass, flask 1/, '0.4800');
  await titrate(page, 1);
  await enter(page, /initial reading/, '0.00');
  await enter(page, /final reading/, '23.50');
  await enter(page, /net mass, flask 2/, '0.4800');
  await page.getByRole('button', { name: /Carry on/ }).click();
  await enter(page, /final reading/, '47.00');
  await page.getByRole('link', { name: 'Judge it' }).click();
  await signPerformed(page);
  // One titration is fewer than the rule asks for: the technical manager's to authorize.
  await expect(page.getByText('To be signed as authorized by Mirela Aschbach.')).toBeVisible();
  // It may be worked with before anybody has authorized it, by the same burette from where it stands.
  await page.getByRole('link', { name: 'Titrate samples with it' }).click();
  await expect(page.getByText(/bottle \d+ is calculated and awaits authorization/)).toBeVisible();
  await expect(
    page.getByLabel('Go on from 47.00 mL, where the last titration ended'),
  ).toBeChecked();
});

test.describe('a page that cannot be shown', () => {
  test.use({ mayReport: true });

  test('says what happened and leads on', async ({ page }) => {
    await signInToDemo(page, 'Tobin');
    await page.goto('/runs/00000000-0000-7000-8000-000000000000');
    await expect(page.getByRole('heading', { name: 'This page cannot be shown' })).toBeVisible();
    await expect(page.getByText('There is no such run.')).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('link', { name: 'To the shelf' }).click();
    await expect(page.getByRole('heading', { level: 1, name: 'Shelf' })).toBeVisible();
  });
});

test('one’s own account: a wrong or common password is told where it was typed, other sessions end', async ({
  page,
}) => {
  await signInToDemo(page, 'Jasna');
  await page.getByRole('link', { name: 'Jasna Orlik' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Jasna Orlik' })).toBeVisible();
  await expectAccessible(page);
  await page.getByLabel('Present password').fill('not this one');
  await page.getByLabel('New password').fill('Password123!');
  await page.getByRole('button', { name: 'Change it' }).click();
  await expect(page.getByText(/one of the passwords that are tried first/)).toBeVisible();
  await page.getByLabel('New password').fill('ladders over the cloud');
  await page.getByRole('button', { name: 'Change it' }).click();
  await expect(page.getByText('This is not your present password.').first()).toBeVisible();
  await page.getByRole('button', { name: 'End my other sessions' }).click();
  await expect(page.getByText(/There was no other|ended; this one goes on/)).toBeVisible();
});
