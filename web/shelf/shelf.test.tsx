import { renderToStaticMarkup } from 'react-dom/server';
import { expect, test } from 'vitest';
import { plainDate } from '#core/grammar';
import type { RunSummary } from '#core/ledger';
import { stockLeft, summarizeRun, takenByRun } from '#core/ledger';
import type { BottleState, Freshness } from '#core/reagent';
import { freshnessOf } from '#core/reagent';
import { concordantSeries, references } from '../../core/test-support/runs';
import { stored, idOf } from '../../core/test-support/stored';
import { nextCode } from '../prepare/nextCode';
import { StandingMark } from '../ui/Standing';
import { BottleDrawing } from './BottleDrawing';
import { shelfItems } from './shelfItems';

const { bottle } = references();

/** The shelf of these bottles and open runs, with nothing else taken from it, on a day. */
function itemsOf(bottles: readonly BottleState[], runs: readonly RunSummary[] = []) {
  const counts = new Map(
    bottles.map((one) => [one.id, { amount: Number(one.volumeMl), at: null }]),
  );
  const left = stockLeft(counts, runs.flatMap(takenByRun));
  return shelfItems({ bottles, left }, runs, plainDate('2026-03-10'), 7);
}

function certified(code: string, validUntil: string): BottleState {
  const certificate = {
    runId: 'r',
    certificateNumber: `${code}-1`,
    molarity: '0.1021',
    expandedUncertainty: '0.0002',
    coverageFactor: '2.00',
    unrounded: null,
    certifiedOn: '2026-03-02',
    validUntil,
    corrections: null,
  };
  return { ...bottle, id: idOf(code), code, certified: [stored(certificate)] };
}

test('bottles that may be used stand first, overdue ones last', () => {
  const bottles = [
    certified('0001', '2026-03-01'),
    { ...bottle, id: '0002', code: '0002' },
    certified('0003', '2026-03-12'),
    certified('0004', '2026-05-01'),
  ];
  const items = itemsOf(stored(bottles));
  expect(items.map((item) => item.bottle.code)).toEqual(['0004', '0003', '0002', '0001']);
});

test('the level falls by rinses and fillings, and never below empty', () => {
  const run = summarizeRun(concordantSeries().state);
  const [item] = itemsOf([bottle], [run]);
  // Three rinses of 4 mL and fillings from 0.10, 0.05, 23.44 and 0.00 to the last mark.
  expect(item?.leftMl).toBeCloseTo(1000 - 12 - (200 - 23.59), 9);
  expect(item?.openRun?.id).toBe(run.id);
  const small = { ...bottle, volumeMl: '50' };
  expect(itemsOf([stored(small)], [run])[0]?.leftMl).toBe(0);
});

test.each([
  ['2026-03-10', /certified.*23 days left/],
  ['2026-04-01', /due.*in 1 day/],
  ['2026-04-02', /due.*today/],
  ['2026-04-05', /overdue.*by 3 days/],
])('on %s the standing reads %s', (today, words) => {
  const freshness = freshnessOf(certified('1', '2026-04-02'), plainDate(today));
  expect(
    renderToStaticMarkup(<StandingMark freshness={freshness} />).replace(/<[^>]+>/g, ' '),
  ).toMatch(words);
});

test('the label states the certified molarity, or that it is only nominal', () => {
  const draw = (of: BottleState, freshness: Freshness): string =>
    renderToStaticMarkup(<BottleDrawing bottle={of} freshness={freshness} fill={0.5} />);
  const full = certified('0417', '2026-05-01');
  expect(draw(full, freshnessOf(full, plainDate('2026-03-10')))).toContain('0.1021');
  const nominal = draw(bottle, { kind: 'not-standardized' });
  expect(nominal).toContain('≈ 0.1');
  expect(nominal).toContain('bottle 0417, 50 % full');
});

test('the next code follows the highest number', () => {
  expect(nextCode([], null)).toBe('0001');
  expect(nextCode(['0417', '0398', 'SPECIAL'], null)).toBe('0418');
  // Away from the server the code carries the device's letter; the number goes on from such codes too.
  expect(nextCode(['0417', '0421-K'], 'T')).toBe('0422-T');
});
