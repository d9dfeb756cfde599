import { expect, test } from 'vitest';
import { forecastFlask } from '../figures';
import { flaskOf } from '../run';
import { concordantSeries, references, RunScript } from '../../test-support/runs';
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
  expect(said).toMatch(/a titrant of 0\.1000 mol\/L .* takes 23\.5 mL/);
});
