import type { Page } from '@playwright/test';
import { expect } from '@playwright/test';
import { v7 as uuidv7 } from 'uuid';
import { DEMO_PASSWORD } from '../contract/messages';
import {
  choose,
  enter,
  expectAccessible,
  showTo,
  signInToDemo,
  signPerformed,
  statedAt,
  test,
} from './laboratory';

/** The molarity of the titrant that is chosen; one is. */
async function titrantMolarity(page: Page): Promise<number> {
  await expect(page.getByRole('button', { name: /Titrant$/ })).toBeVisible();
  const molPerL = await statedAt(page, 'Titrant');
  expect(molPerL).not.toBeNaN();
  return molPerL;
}

test('a vinegar is received, titrated with a certified titrant, and held against its limit', async ({
  page,
}) => {
  await signInToDemo(page, 'Jasna');
  await page.getByRole('link', { name: 'Samples', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Samples' })).toBeFocused();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Receive a sample' }).click();
  await page.getByLabel('Code').fill('V-900');
  await page.getByLabel('What it is').fill('wine vinegar');
  await page.getByLabel('Its density is known').check();
  await page.getByLabel('Density', { exact: true }).fill('1,006');
  await page.getByLabel('Plus or minus').fill('0.001');
  await page.getByRole('button', { name: 'Add an analysis' }).click();
  await page.getByLabel('Analysis').selectOption('acetic acid in vinegar');
  await page.getByLabel('Unit', { exact: true }).selectOption('% m/m');
  await page.getByLabel('Expected').fill('6');
  await page.getByLabel('Held against').selectOption('limits');
  await page.getByLabel('At least').fill('5.9');
  await page.getByLabel('Decided').selectOption('passes only if it is inside by U');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Receive it' }).click();
  await page.getByRole('link', { name: 'V-900' }).click();
  await expect(page.getByText('6 expected')).toBeVisible();
  await page.getByRole('link', { name: 'Label…' }).click();
  await expect(page.getByRole('article')).toContainText('acetic acid in vinegar');
  await expectAccessible(page);
  await page.getByRole('link', { name: 'To the sample' }).click();

  await page.getByRole('button', { name: 'Dilute…' }).click();
  const dilution = page.getByRole('dialog');
  await dilution.getByLabel('Pipette').selectOption('Pipette V10, 10 mL');
  await dilution.getByLabel('Made up to the mark of').selectOption('Flask F1, 100 mL');
  await page.getByRole('button', { name: 'It is diluted' }).click();
  await expect(page.getByText('10 mL to 100 mL')).toBeVisible();
  await page.getByRole('link', { name: 'Titrate it' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Titrate samples' })).toBeFocused();
  await choose(page, 'Portions with', /Pipette V25/);
  const molPerL = await titrantMolarity(page);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'To the bench' }).click();

  await expect(page.getByRole('heading', { level: 1 })).toContainText('Sample V-900');
  await expect(page.getByText('Pipette 25 mL of the diluted sample V-900')).toBeVisible();
  for (const flask of [1, 2]) await enter(page, new RegExp(`volume, flask ${String(flask)}`), '25');
  for (const [flask, finalMl] of [
    [1, '24.60'],
    [2, '24.64'],
  ] as const) {
    await enter(page, new RegExp(`initial reading, flask ${String(flask)}`), '0.00');
    await enter(page, new RegExp(`final reading, flask ${String(flask)}`), finalMl);
  }
  await expect(page.getByText(/^You may stop: 2 titrations agree within/)).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('link', { name: 'See the contents' }).click();
  // c V M / (V_a rho), ten times diluted, in per cent.
  const byHand = (100 * molPerL * 24.62e-3 * 60.052 * 10) / (25 * 1.006);
  const content = await page.getByText(/^w =/).innerText();
  const found = Number(/= (\d+\.\d+)/.exec(content.replace(/\s+/g, ' '))?.[1]);
  expect(Math.abs(found / byHand - 1)).toBeLessThan(0.001);
  await expect(page.getByText('as acetic acid')).toBeVisible();
  await expect(page.getByText(/probability of conformity/)).toBeVisible();
  await expect(page.getByText('passes only if it is inside by U')).toBeVisible();
  await expectAccessible(page);

  await signPerformed(page);
  await showTo(page, 'Mirela');
  await page.getByLabel('Your password').fill(DEMO_PASSWORD);
  await page.getByRole('button', { name: 'Report the result' }).click();
  await page.getByRole('link', { name: 'Report V-900-R1' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Report V-900-R1' })).toBeFocused();
  await expect(page.getByText('It holds')).toBeVisible();
  await expect(page.getByText('The results relate to the items as received.')).toBeVisible();
  await page.getByRole('button', { name: 'Compute it again' }).click();
  await expect(page.getByText(/^Identical: \d+ figures/)).toBeVisible();
  await expectAccessible(page);
  const [paper] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save the PDF' }).click(),
  ]);
  expect(paper.suggestedFilename()).toBe('V-900-R1.pdf');

  await page.getByRole('button', { name: 'Withdraw it, to amend it…' }).click();
  await page.getByLabel('What was wrong').fill('the density was that of another vinegar');
  await page.getByLabel('Your password').fill(DEMO_PASSWORD);
  await page.getByRole('button', { name: 'Withdraw it', exact: true }).click();
  await expect(page.getByText('Withdrawn by')).toBeVisible();
  await page.getByRole('link', { name: 'To the judgement' }).click();
  await expect(page.getByText('Report V-900-R1 was withdrawn')).toBeVisible();
  await page.getByRole('link', { name: 'V-900', exact: true }).click();
  await expect(page.getByRole('table', { name: 'Reported' })).toContainText('withdrawn');
});

test('two wines are titrated as a batch, one after the other, each with its own content', async ({
  page,
}) => {
  await signInToDemo(page, 'Tobin');
  await page.goto('/titrate/samples?analysis=titratable-acidity');
  await page.getByLabel(/^QC-W/).check();
  await page.getByLabel(/^W-311/).check();
  await choose(page, 'Portions with', /Pipette V10/);
  // Certified with phenolphthalein, which changes beyond pH 7.
  await expect(
    page.getByText(/rests on phenolphthalein, this analysis ends by bromo/),
  ).toBeVisible();
  await page
    .getByLabel('Why it goes on all the same')
    .fill('The control is titrated to the same pH and shows what that does.');
  await page.getByRole('button', { name: 'To the bench' }).click();
  const batch = page.getByRole('navigation', { name: 'Samples of the batch' });
  await expect(batch.getByRole('button')).toHaveCount(2);
  const heading = page.getByRole('heading', { level: 1 });
  const first = (await heading.innerText()).includes('QC-W') ? 'QC-W' : 'W-311';
  // The control comes to some 6.4 g/L, where its chart has a mean of 6.05 and an s of 0.06.
  const finals =
    first === 'QC-W' ? ['8.40', '8.42', '8.26', '8.30'] : ['8.26', '8.30', '8.40', '8.42'];
  for (const [i, finalMl] of finals.entries()) {
    const flask = String(i + 1);
    if (i % 2 === 0) {
      await enter(page, new RegExp(`volume, flask ${flask}`), '10');
      await enter(page, new RegExp(`volume, flask ${String(i + 2)}`), '10');
    }
    await enter(page, new RegExp(`initial reading, flask ${flask}`), '0.00');
    await enter(page, new RegExp(`final reading, flask ${flask}`), finalMl);
  }
  await expect(heading).not.toContainText(first);
  await expect(batch).not.toContainText('to be titrated');
  await batch.getByRole('button', { name: new RegExp(`^${first}`) }).click();
  await expect(heading).toContainText(first);
  await page.getByRole('link', { name: 'See the contents' }).click();
  await expect(page.getByText('as tartaric acid')).toHaveCount(2);
  await expect(page.getByText(/beyond 3 s: out of control/).first()).toBeVisible();
  await expectAccessible(page);

  await signPerformed(page);
  await showTo(page, 'Mirela');
  await page.getByLabel('Your password').fill(DEMO_PASSWORD);
  const report = page.getByRole('button', { name: 'Report the results' });
  await expect(report).toBeDisabled();
  await page
    .getByLabel('Why all the same')
    .fill('The control bottle had stood open; a fresh one was in control.');
  await report.click();
  await page.getByRole('link', { name: /^Report (QC-W|W-311)-R2$/ }).click();
  // Of two customers each has a paper of its own.
  await expect(page.getByRole('link', { name: /^Save .*-1\.pdf$/ })).toBeVisible();
  await expect(page.getByRole('link', { name: /^Save .*-2\.pdf$/ })).toBeVisible();
  await expect(page.getByText(/out of control; 25 earlier points/).first()).toBeVisible();
  await page.goto('/samples');
  await page.getByRole('link', { name: 'QC-W' }).click();
  await expect(page.getByRole('region', { name: /^Control chart/ })).toContainText(
    'out of control',
  );
  await expectAccessible(page);
});

test('what was weighed, and what was diluted 10 to 250: each comes to its content by hand', async ({
  page,
}) => {
  await signInToDemo(page, 'Tobin');
  const cases = [
    {
      ...{ sample: 'S-107', instrument: null, name: 'mass', finals: ['39.20', '39.24'] },
      portion: '0.3000',
      // c V M / 2 m, in per cent.
      byHand: (c: number) => (100 * c * 39.22e-3 * 150.087) / 2 / 0.3,
    },
    {
      ...{ sample: 'C-018', instrument: /Pipette V25/, name: 'volume', finals: ['3.00', '3.02'] },
      portion: '25',
      // c V M / (V_a rho), 25 times diluted, in per cent.
      byHand: (c: number) => (100 * c * 3.01e-3 * 63.012 * 25) / (25 * 1.012),
    },
  ];
  for (const { sample, instrument, name, finals, portion, byHand } of cases) {
    await page.goto('/samples');
    await page.getByRole('link', { name: sample }).click();
    await page.getByRole('link', { name: 'Titrate it' }).click();
    if (instrument) await choose(page, 'Portions with', instrument);
    const molPerL = await titrantMolarity(page);
    await page.getByRole('button', { name: 'To the bench' }).click();
    await expect(page.getByRole('heading', { level: 1 })).toContainText(`Sample ${sample}`);
    for (const flask of ['1', '2']) {
      await enter(page, new RegExp(`${name}, flask ${flask}`), portion);
    }
    for (const [i, finalMl] of finals.entries()) {
      const flask = String(i + 1);
      await enter(page, new RegExp(`initial reading, flask ${flask}`), '0.00');
      await enter(page, new RegExp(`final reading, flask ${flask}`), finalMl);
    }
    await page.goto(`${page.url()}/judge`);
    // What was entered last may have to arrive first.
    for (const finalMl of finals) {
      await expect(page.getByRole('table', { name: 'Titrations' })).toContainText(finalMl);
    }
    const content = await page.getByText(/^w =/).innerText();
    const found = Number(/= (\d+\.\d+)/.exec(content.replace(/\s+/g, ' '))?.[1]);
    expect(Math.abs(found / byHand(molPerL) - 1), content).toBeLessThan(0.003);
  }
});

test('forty wines are one batch in two runs, and each sample takes few keys', async ({ page }) => {
  await signInToDemo(page, 'Tobin');
  const { csrfToken, person } = (await (await page.request.get('/api/session')).json()) as {
    readonly csrfToken: string;
    readonly person: { readonly id: string };
  };
  const today = new Date().toISOString().slice(0, 10);
  for (let i = 1; i <= 40; i += 1) {
    const sample = {
      ...{ code: `B-${String(900 + i)}`, description: 'wine', source: '', customer: 'cellar' },
      ...{ sampledBy: '', sampledOn: null, receivedOn: today, condition: '', amount: null },
      ...{ density: null, unitMass: null, store: '', keepUntil: null },
      requests: [
        {
          ...{ analysisId: 'volatile-acidity', unit: 'g/L', as: 'CH3COOH', expected: '0.5' },
          requirement: { kind: 'none' },
        },
      ],
    };
    const sent = await page.request.post('/api/facts', {
      headers: { 'x-csrf-token': csrfToken },
      data: {
        ...{ id: uuidv7(), recordId: uuidv7(), recordKind: 'sample', kind: 'sample.received' },
        ...{ schemaVersion: 1, body: sample, authorId: person.id, deviceId: null },
        ...{ deviceTime: new Date().toISOString(), clockOffsetMs: null, basedOn: null },
      },
    });
    expect(sent.status(), await sent.text()).toBe(201);
  }
  await page.goto('/titrate/samples?analysis=volatile-acidity');
  await page.getByRole('button', { name: 'All 40' }).click();
  await expect(page.getByText('40 chosen')).toBeVisible();
  await choose(page, 'Portions with', /Pipette V20/);
  await page.getByRole('button', { name: 'To the bench' }).click();

  const batch = page.getByRole('navigation', { name: 'Samples of the batch' });
  await expect(batch.getByRole('button')).toHaveCount(20);
  const parts = page.getByRole('navigation', { name: 'Runs of the batch' });
  await expect(parts).toContainText('Part 1 of 2');
  const heading = page.getByRole('heading', { level: 1 });
  await expect(heading).toContainText('B-901');
  const entry = page.getByRole('form', { name: 'Next entry' });
  const said = page.getByRole('main').getByRole('status');
  await entry.press('Enter');
  await expect(said).toContainText('flask 2');
  await entry.press('Enter');
  await enter(page, /initial reading, flask 1/, '0.00');
  await enter(page, /final reading, flask 1/, '1.65');
  await expect(page.getByRole('textbox', { name: /initial reading, flask 2/ })).toBeFocused();
  await page.keyboard.press('c');
  await enter(page, /final reading, flask 2/, '3.30');
  // Two portions and the level carried on: three keys to the first reading of the next sample.
  await expect(heading).toContainText('B-902');
  for (const flask of ['4', '5']) {
    await page.keyboard.press('Enter');
    await expect(said).not.toContainText(`flask ${String(Number(flask) - 1)}`);
  }
  await expect(page.getByRole('textbox', { name: /initial reading, flask 3/ })).toBeFocused();
  await page.keyboard.press('c');
  await expect(page.getByRole('textbox', { name: /final reading, flask 3/ })).toBeFocused();
  await enter(page, /final reading, flask 3/, '4.97');
  await parts.getByRole('link', { name: 'Part 2 of 2' }).click();
  await expect(heading).toContainText('B-921');
  await expect(batch.getByRole('button')).toHaveCount(20);
  await expect(parts.getByRole('link', { name: 'Part 1 of 2' })).toBeVisible();
  await expectAccessible(page);
  const answer = await page.request.get(page.url().replace('/runs/', '/api/runs/'));
  expect((await answer.body()).length).toBeLessThan(200_000);
});
