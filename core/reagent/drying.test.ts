import { expect, test } from 'vitest';
import { findSubstance } from '#core/chemistry';
import type { LotFact } from './index';
import { dryness, LOT_RECORD } from './index';
import { khpLot } from '../test-support/runs';

const KHP = findSubstance('potassium-hydrogen-phthalate')?.drying ?? null;
const AT = '2026-03-02T0';

function fact(kind: LotFact['kind'], body: object, time: string): LotFact {
  const at = `${AT}${time}:00.000Z`;
  return {
    ...{ id: `${kind} ${time}`, recordId: 'lot', recordKind: 'lot', kind, schemaVersion: 1, body },
    ...{ authorId: 'ines', deviceId: null, clockOffsetMs: null, deviceTime: at, basedOn: null },
    ...{ sequence: 1, recordedAt: at },
    // Kind and body belong together by the table of the test.
  } as unknown as LotFact;
}

/** A lot that was registered, then put in and taken out at these times. */
function driedAt(temperatureC: string, putIn: string, takenOut: string | null) {
  const lot = LOT_RECORD.fold([
    fact('lot.registered', khpLot().lot, '6:00'),
    fact('lot.put-to-dry', { temperatureC }, putIn),
    ...(takenOut === null ? [] : [fact('lot.taken-out', {}, takenOut)]),
  ]);
  return lot?.drying ?? [];
}

test.each([
  ['115', '7:00', null, '8:00', 'not-yet', '09:30'],
  ['115', '7:00', null, '9:10', 'not-yet', '09:40'],
  ['115', '7:00', '8:30', '8:40', 'not-yet', null],
  ['115', '7:00', '9:05', '9:20', 'cooling', '09:35'],
  ['115', '7:00', '9:05', '9:40', 'dry', '09:35'],
  ['140', '7:00', '9:05', '9:40', 'too-hot', null],
  ['60', '7:00', '9:05', '9:40', 'too-cold', null],
] as const)(
  'at %s °C from %s to %s it is %5$s at %4$s',
  (temperature, from, to, now, verdict, ready) => {
    const found = dryness(KHP, driedAt(temperature, from, to), `${AT}${now}:00.000Z`);
    expect(found.verdict).toBe(verdict);
    expect(found.weighableFrom?.slice(11, 16) ?? null).toBe(ready);
    expect(found.sentence).toMatch(/\.$/);
  },
);

test('a hydrate is never put into the oven, and what was not dried is said', () => {
  const hydrate = findSubstance('oxalic-acid-dihydrate')?.drying ?? null;
  expect(dryness(hydrate, [], `${AT}8:00:00.000Z`)).toMatchObject({
    verdict: 'no-oven',
    sentence: expect.stringContaining('loses water') as string,
  });
  expect(dryness(KHP, [], `${AT}8:00:00.000Z`).verdict).toBe('not-dried');
});

test('a lot folds what happens to it: opened, counted, put away, and back in use', () => {
  const state = LOT_RECORD.fold([
    fact('lot.registered', khpLot().lot, '6:00'),
    fact('lot.opened', { openedOn: '2026-03-02' }, '6:10'),
    fact('lot.counted', { amountLeft: '61.2', reason: 'yearly' }, '6:20'),
    fact('lot.withdrawn', { reason: 'wet' }, '6:30'),
  ]);
  expect(state).toMatchObject({
    version: 4,
    lot: { openedOn: '2026-03-02', lotNumber: 'K-22' },
    counted: { amountLeft: '61.2' },
    withdrawn: { reason: 'wet' },
  });
  expect(LOT_RECORD.fold([])).toBeNull();
});

test('two devices that put one lot into the oven, and take it out, leave one stay', () => {
  const state = LOT_RECORD.fold([
    fact('lot.registered', khpLot().lot, '6:00'),
    fact('lot.put-to-dry', { temperatureC: '115' }, '7:00'),
    fact('lot.put-to-dry', { temperatureC: '120' }, '7:01'),
    fact('lot.taken-out', {}, '9:05'),
    fact('lot.taken-out', {}, '9:06'),
  ]);
  expect(state?.drying).toMatchObject([
    { temperatureC: '115', takenOut: { at: `${AT}9:05:00.000Z` } },
  ]);
});
