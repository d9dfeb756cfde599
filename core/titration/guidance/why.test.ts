import { expect, test } from 'vitest';
import { forecastFlask } from '../figures';
import { flaskOf } from '../run';
import {
  aliquots,
  bottleOf,
  concordantSeries,
  made,
  references,
  RunScript,
} from '../../test-support/runs';
import { idOf } from '../../test-support/stored';
import { planRun, whyExpected, whyPortion } from './index';

/** What is said of the titre that a flask is expected to take. */
function saidOf({ state }: RunScript, number: number): string {
  const flask = flaskOf(state, number);
  if (!flask) throw new Error(`no flask ${String(number)}`);
  return whyExpected(state, flask, forecastFlask(state, flask, null)).join(' ');
}

test('an expected titre says what it rests on: the label, the rough titration, those made so far', () => {
  const begun = new RunScript().weigh(1, '0.4800');
  expect(saidOf(begun, 1)).toMatch(/the label’s, 0\.1000 mol\/L, believed within 5 %/);
  const rough = begun.read(1, 'initial', '0.00').read(1, 'final', '23.60').weigh(2, '0.4800');
  expect(saidOf(rough, 2)).toContain('the rough titration gave');
  const series = concordantSeries().weigh(5, '0.4800');
  expect(saidOf(series, 5)).toContain('the mean of the titrations made so far');
});

test('a portion says which titre it is for, and that the burette decided it', () => {
  const set = references({});
  const said = whyPortion(set, planRun(set, new RunScript().state.setUp.rules)).join(' ');
  expect(said).toContain('a little under half of what the burette holds (50 mL)');
  expect(said).toMatch(/NaOH of 0\.1000 mol\/L .* takes 23\.5 mL/);
});

test('what stands on the other side is called by its name: the burette holds the standard', () => {
  const standard = bottleOf('sodium-hydroxide', { id: idOf('other'), ...made('0.1000') });
  const titrant = { substanceId: 'hydrochloric-acid', nominalMolarity: '0.1' };
  const { references: set, state } = aliquots(
    'hydroxide-into-hydrochloric-acid',
    standard,
    titrant,
  );
  const said = whyPortion(set, planRun(set, state.setUp.rules)).join(' ');
  expect(said).toMatch(/The portion is what the pipette holds: 25\.00 mL.* HCl of 0\.1000 mol\/L/);
});
