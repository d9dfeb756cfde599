import { expect, test } from 'vitest';
import { flaskOf } from '../run';
import type { RunScript } from '../../test-support/runs';
import { concordantSeries, methodOf } from '../../test-support/runs';
import { flaskColour } from './index';

/** What the newest flask of a series shows, titrated by a method that turns brown, straw and blue before it is clear. */
function shown({ state }: RunScript): string {
  const flask = flaskOf(state, 5);
  if (!flask) throw new Error('no flask 5');
  return flaskColour(flask, methodOf('thiosulfate-by-iodate')).word;
}

test('a flask turns when its entries say so, and never before', () => {
  const begun = concordantSeries().weigh(5, '0.4800').read(5, 'initial', '0.00');
  expect(shown(begun)).toBe('brown of iodine');
  const nearly = begun.add('run.provisional-read', { flask: 5, readingMl: '23.35' });
  expect(shown(nearly)).toBe('blue');
  expect(shown(nearly.read(5, 'final', '23.42'))).toBe('colourless');
});

test.each([
  ['good', 'faintest pink'],
  ['drop-over', 'faintest pink'],
  ['far-over', 'strong pink'],
] as const)('an end point that was %s leaves it %s', (grade, word) => {
  const { state } = concordantSeries().add('run.end-point-graded', { flask: 4, grade });
  const flask = flaskOf(state, 4);
  expect(flask && flaskColour(flask, methodOf('naoh-by-khp')).word).toBe(word);
});

test('a rough titration is overshot by design', () => {
  const [rough] = concordantSeries().state.flasks;
  expect(rough && flaskColour(rough, methodOf('naoh-by-khp')).word).toBe('strong pink');
});
