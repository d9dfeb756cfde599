import type { Page } from '@playwright/test';
import { expect } from '@playwright/test';
import type { Entered } from './benchStates';
import { beginLike, end, firstFact, pipette, start, titrated, weigh } from './benchStates';
import { signInToDemo, test } from './laboratory';
import { misfits, WIDTHS } from './misfits';

/** A bench is no wider on a wider desk. */
const BENCH_WIDTHS = WIDTHS.filter(([width]) => width <= 1280);

/** A state of the bench: what was entered, and what is asked for or typed on top of it. */
type State = readonly [
  name: string,
  entered: readonly Entered[],
  then?: (page: Page) => Promise<void>,
];

const fact = (kind: string, body: object, missed = 0): Entered => ({ kind, body, missed });
const press = (key: string) => (page: Page) => page.keyboard.press(key);
const type = (figure: string) => async (page: Page) => {
  await page.getByRole('form', { name: 'Next entry' }).getByRole('textbox').first().fill(figure);
};
const keep = (figure: string) => async (page: Page) => {
  await type(figure)(page);
  await page.keyboard.press('Enter');
};
const fromMenu = (item: RegExp) => async (page: Page) => {
  // What was sent just now may still arrive at the page, which then draws itself anew, and the menu goes.
  await expect(async () => {
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'More…' }).click({ timeout: 3_000 });
    await page.getByRole('menuitem', { name: item }).click({ timeout: 3_000 });
  }).toPass();
};
const NINE = Array.from({ length: 9 }, (_, i) => i + 1);
const LONG =
  'it was left over lunch and the next person has to weigh the flasks again because of it';

const WEIGHED: readonly State[] = [
  ['nothing yet', []],
  ['by difference', [], (page) => page.getByText('by difference').click()],
  ['one weighed', [weigh(1)]],
  ['nine weighed', NINE.map((flask) => weigh(flask))],
  ['a blank to be made', [weigh(1)], press('n')],
  ['a blank made', [weigh(1), fact('run.blank-made', { flask: 2 })]],
  ['at the balance', [weigh(1)], press('d')],
  ['before the first reading', [weigh(1)], press('t')],
  ['under the burette', [weigh(1), start(1)]],
  ['a reading typed', [weigh(1), start(1)], type('23.46')],
  ['an unlikely reading', [weigh(1), start(1)], keep('12.00')],
  ['an impossible reading', [weigh(1), start(1)], keep('62.00')],
  ['no number', [weigh(1), start(1)], keep('twenty')],
  ['does it last', [weigh(1), start(1)], press('p')],
  ['to be refilled', [weigh(1), start(1)], press('r')],
  [
    'refilled',
    [
      weigh(1, '0.9800'),
      start(1),
      fact('run.burette-refilled', {
        flask: 1,
        refill: 1,
        moment: 'stop',
        readingMl: '45.00',
        reason: null,
      }),
    ],
  ],
  [
    'read before a drop',
    [weigh(1), start(1), fact('run.provisional-read', { flask: 1, readingMl: '23.40' })],
  ],
  ['an electrode', [weigh(1), start(1)], press('e')],
  ['just ended', [weigh(1), weigh(2), start(1), end(1)]],
  [
    'graded far over',
    [
      ...[weigh(1), weigh(2), start(1), end(1)],
      fact('run.end-point-graded', { flask: 1, grade: 'far-over' }),
    ],
  ],
  ['taken back', [weigh(1), start(1), end(1)], press('z')],
  ['two in line', titrated('23.60', '23.61', '23.60')],
  ['enough', titrated('23.60', '23.61', '23.60', '23.60')],
  ['out of line', titrated('23.60', '23.61', '23.60', '25.10')],
  ['nine titrated', titrated(...NINE.map((i) => `23.6${String(i % 2)}`))],
  ['voided', [...titrated('23.60', '23.61'), fact('run.flask-voided', { flask: 1, reason: LONG })]],
  [
    'to be voided',
    titrated('23.60'),
    (page) => page.getByRole('button', { name: /^Void flask 1/ }).click(),
  ],
  ['two values', [weigh(1), start(1), end(1), { ...end(1, '23.70'), missed: 1 }]],
  [
    'settling two values',
    [weigh(1), start(1), end(1), { ...end(1, '23.70'), missed: 1 }],
    (page) => page.getByRole('button', { name: 'Compare and settle' }).click(),
  ],
  [
    'corrected',
    [
      ...titrated('23.60'),
      fact('run.weighing-corrected', {
        corrects: '#1',
        weighing: { mode: 'tared', massG: '0.4900' },
        reason: LONG,
      }),
    ],
  ],
  [
    'correcting',
    titrated('23.60'),
    (page) => page.getByRole('button', { name: /^Correct the final reading of flask 1/ }).click(),
  ],
  ['an incident', titrated('23.60'), press('i')],
  [
    'incidents noted',
    [
      ...titrated('23.60'),
      ...['bubble-in-tip', 'walls-rinsed-down'].map((incidentId) =>
        fact('run.incident-noted', {
          flask: 1,
          incidentId,
          measured: null,
          waterMl: null,
          volumetricFlaskMl: null,
          remark: LONG,
        }),
      ),
    ],
  ],
  [
    'checking the burette',
    [weigh(1)],
    async (page) => {
      await page.keyboard.press('t');
      await page.keyboard.press('b');
    },
  ],
  ['paused', [weigh(1), fact('run.paused', { toId: null, remark: LONG })]],
  ['pausing', [weigh(1)], fromMenu(/Pause/)],
  ['large figures', [weigh(1), start(1)], press('l')],
  ['the keys', [weigh(1)], press('?')],
  ['hazards', [weigh(1)], fromMenu(/Hazards/)],
  ['abandoned', [weigh(1), fact('run.abandoned', { reason: LONG })]],
  [
    'away from the server',
    [weigh(1), start(1)],
    async (page) => {
      await page.route('**/api/facts', (route) => route.abort());
      await keep('23.60')(page);
      await expect(page.getByText(/1 kept here/)).toBeVisible();
      await page.unroute('**/api/facts');
    },
  ],
];

const hot = (temperatureC: string): readonly Entered[] => [
  ...[weigh(1, '0.2100'), weigh(2, '0.2100'), start(1)],
  fact('run.temperature-taken', { flask: 1, temperatureC, reason: 'as it was' }),
];

const OTHERS: readonly (readonly [bottle: string, how: string, states: readonly State[]])[] = [
  [
    '0414, KMnO4',
    'permanganate by sodium oxalate, hot',
    [
      ['hot, not measured yet', [weigh(1, '0.2100'), start(1)]],
      ['hot', hot('78')],
      ['cooled too far', hot('58')],
      ['how hot', hot('78'), press('h')],
      ['hot, in large figures', hot('78'), press('l')],
    ],
  ],
  [
    '0415, HCl',
    'hydrochloric acid in the flask, sodium carbonate in the burette',
    [
      ['the standard in the burette', [pipette(1), pipette(2), start(1)]],
      ['a pipette', []],
    ],
  ],
  [
    '0419, NH3',
    'ammonia, excess of acid titrated back',
    [
      ['titrated back', [pipette(1), start(1), end(1, '25.60')]],
      ['an excess to be titrated', [pipette(1), start(1)]],
    ],
  ],
];

/** What does not fit of a state, at each width; the page keeps what is typed and asked while it is turned. */
async function misfitsOf(page: Page, [name, , then]: State, address: string): Promise<string[]> {
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(address);
  await expect(page.getByRole('heading', { level: 1, name: /^Bottle/ })).toBeVisible();
  await expect(page.getByText('One moment …')).toHaveCount(0);
  await then?.(page);
  const found: string[] = [];
  for (const [width, height] of BENCH_WIDTHS.toReversed()) {
    await page.setViewportSize({ width, height });
    // Drawn once more, so that what follows the width has followed.
    await page.evaluate(
      () => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve))),
    );
    const here = await misfits(page);
    found.push(...here.map((misfit) => `${name}, ${String(width)}: ${misfit}`));
  }
  return found;
}

test.describe.configure({ mode: 'parallel' });

const half = Math.ceil(WEIGHED.length / 2);
for (const states of [WEIGHED.slice(0, half), WEIGHED.slice(half)]) {
  test(`the bench fits from ${states[0]?.[0] ?? ''} to ${states.at(-1)?.[0] ?? ''}, at every width`, async ({
    page,
  }) => {
    test.setTimeout(240_000);
    await signInToDemo(page, 'Mirela');
    const first = await firstFact(
      page,
      '0418',
      'hydroxide by potassium hydrogen phthalate, weighed',
    );
    const found: string[] = [];
    for (const state of states) {
      found.push(...(await misfitsOf(page, state, await beginLike(page, first, state[1]))));
    }
    expect(found).toEqual([]);
  });
}

test('the bench fits hot, reversed and titrated back, at every width', async ({ page }) => {
  test.setTimeout(240_000);
  await signInToDemo(page, 'Mirela');
  const found: string[] = [];
  for (const [bottle, how, states] of OTHERS) {
    const first = await firstFact(page, bottle, how);
    for (const state of states) {
      found.push(...(await misfitsOf(page, state, await beginLike(page, first, state[1]))));
    }
  }
  expect(found).toEqual([]);
});
