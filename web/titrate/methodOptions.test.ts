import { expect, test } from 'vitest';
import { plainDate } from '#core/grammar';
import type { HouseRules } from '#core/laboratory';
import { DEFAULT_HOUSE_RULES } from '#core/laboratory';
import { bottleOf, khpLot, made } from '../../core/test-support/runs';
import { isPossible, methodOptionsFor } from './methodOptions';

const acid = bottleOf('hydrochloric-acid', {});
const hydroxide = bottleOf('sodium-hydroxide', { ...made('0.1021'), code: '0419' });
const shelf = {
  today: plainDate('2026-03-02'),
  methods: [],
  lots: [khpLot({ substanceId: 'sodium-carbonate' })],
  bottles: [hydroxide],
  left: new Map([
    [acid.id, 300],
    [hydroxide.id, 900],
  ]),
};

function firstFor(changes: Partial<HouseRules>, on = shelf): string | undefined {
  return methodOptionsFor(acid, on, { ...DEFAULT_HOUSE_RULES, ...changes })[0]?.method.id;
}

test('what the house rules prefer is offered first, of what the shelf holds', () => {
  expect(firstFor({})).toBe('hydrochloric-acid-by-sodium-carbonate');
  expect(firstFor({ standardBy: 'aliquot' })).toBe('hydrochloric-acid-by-hydroxide');
  expect(firstFor({ standardBy: 'aliquot', inBurette: 'standard' })).toBe(
    'hydroxide-into-hydrochloric-acid',
  );
  expect(firstFor({}, { ...shelf, lots: [] })).toBe('hydrochloric-acid-by-hydroxide');
});

test('the burette may hold the solution of which there is more', () => {
  const rules = { standardBy: 'aliquot', inBurette: 'more' } as const;
  expect(firstFor(rules)).toBe('hydroxide-into-hydrochloric-acid');
  const left = new Map([[acid.id, 950]]);
  expect(firstFor(rules, { ...shelf, left })).toBe('hydrochloric-acid-by-hydroxide');
});

test('a back-titration is possible with both of its solutions only', () => {
  const ammonia = bottleOf('ammonia', {});
  const possible = (bottles: typeof shelf.bottles) =>
    methodOptionsFor(ammonia, { ...shelf, bottles }, DEFAULT_HOUSE_RULES).map(isPossible);
  const known = bottleOf('hydrochloric-acid', made('0.1002'));
  expect(possible([hydroxide])).toEqual([false]);
  expect(possible([known])).toEqual([false]);
  expect(possible([hydroxide, known])).toEqual([true]);
  expect(possible([hydroxide, bottleOf('hydrochloric-acid', {})])).toEqual([false]);
});

test('of several standard solutions the newest comes first, one that is past its day last', () => {
  const solution = (id: string, useBy: string) =>
    bottleOf('sodium-hydroxide', { ...made('0.1021'), id, useBy });
  const bottles = [
    solution('older', '2026-12-31'),
    solution('newer', '2026-12-31'),
    solution('newest-but-past', '2026-03-01'),
  ];
  const options = methodOptionsFor(acid, { ...shelf, bottles }, DEFAULT_HOUSE_RULES);
  const takesSolutions = options.find(({ takes }) => takes === 'bottle');
  expect(takesSolutions?.bottles.map(({ id }) => id)).toEqual([
    'newer',
    'older',
    'newest-but-past',
  ]);
});
