import type { Plain } from '#core/grammar';
import { plainDate } from '#core/grammar';
import { describe, expect, test } from 'vitest';
import { findingText } from '#core/wording';
import { equivalentsOfTitrant } from '#core/chemistry';
import type { HouseRules, LaboratoryFact } from '#core/laboratory';
import {
  checkRules,
  checkTypedDate,
  deviatingRules,
  rulesAt,
  UNWRITTEN_RULES,
} from '#core/laboratory';
import { decimalText } from '#core/measurement';
import type { RunReferences } from '../setUp';
import {
  concordantSeries,
  khpLot,
  methodOf,
  PLAIN_RULES,
  references,
  RunScript,
} from '../../test-support/runs';
import { idOf, stored } from '../../test-support/stored';
import {
  certificationFindings,
  issueCertificate,
  judgeRun,
  outOfUse,
  outOfUseFindings,
} from './index';
import { adviceAgainst } from '../record';

const decision = {
  number: '0417-1',
  certifiedById: idOf('mirela'),
  signatures: [],
  isIndependent: true,
  certifiedOn: plainDate('2026-03-02'),
  validUntil: plainDate('2026-03-20'),
  reason: null,
};

/** Three titrations whose mean is near 0.1000 mol/L; `spreadMl` sets the last apart. */
function series(
  changes: Partial<Plain<HouseRules>>,
  given: RunReferences = references(),
  spreadMl = 0,
): RunScript {
  const rules = { ...PLAIN_RULES, firstIsRough: false, ...changes };
  return new RunScript(given, { rules })
    .titrate(1, '0.4800', '0.00', '23.50')
    .titrate(2, '0.4800', '0.00', '23.52')
    .titrate(3, '0.4800', '0.00', (23.51 + spreadMl).toFixed(2));
}

function codesOf({ state }: RunScript): readonly string[] {
  return certificationFindings(state, judgeRun(state), decision).map(({ code }) => code);
}

describe('what tests a result', () => {
  const apart = (changes: Partial<Plain<HouseRules>>, given?: RunReferences) =>
    codesOf(series(changes, given, 0.6));
  const known = (molarity: string): RunReferences => {
    const { bottle, ...rest } = references();
    const made = {
      molarity,
      expandedUncertainty: '0.0002',
      coverageFactor: '2.00',
      unrounded: null,
    };
    return { ...rest, bottle: { ...bottle, made: stored(made) } };
  };

  test('agreement by default; by the label only how far it is from that', () => {
    expect(apart({})).toEqual(['not-concordant']);
    expect(apart({ testedBy: 'label' })).toEqual([]);
    expect(apart({ testedBy: 'label', farFromNominalAskPercent: '0.5' })).toEqual(['off-accepted']);
  });

  test('by the value accepted before, where there is one', () => {
    const rule = { testedBy: 'accepted-value', farFromNominalAskPercent: '1' } as const;
    expect(apart(rule)).toEqual(['no-accepted-value']);
    expect(apart(rule, known('0.0995'))).toEqual([]);
    expect(apart(rule, known('0.0970'))).toEqual(['off-accepted']);
  });
});

test('a tolerance is distributed as the house takes it: rectangular is wider by the root of two', () => {
  const tolerance = (changes: Partial<Plain<HouseRules>>): number =>
    judgeRun(series(changes).state).result?.evaluation.budget.find(
      ({ input }) => input.effect === 'Burette tolerance',
    )?.contribution ?? 0;
  const asRegistered = Math.abs(tolerance({}));
  expect(Math.abs(tolerance({ toleranceAs: 'triangular' }))).toBeCloseTo(asRegistered, 12);
  expect(Math.abs(tolerance({ toleranceAs: 'rectangular' })) / asRegistered).toBeCloseTo(
    Math.SQRT2,
    9,
  );
});

describe('normality', () => {
  test.each([
    ['naoh-by-khp', 1],
    ['naoh-by-oxalic-acid', 1],
    ['hydrochloric-acid-by-sodium-carbonate', 1],
    ['sulfuric-acid-by-sodium-carbonate', 2],
    ['permanganate-by-sodium-oxalate', 5],
    ['permanganate-by-iron-ii', 5],
    ['dichromate-by-iron-ii', 6],
    ['iron-ii-by-dichromate', 1],
    ['thiosulfate-by-iodate', 1],
    ['iodine-by-thiosulfate', 2],
    ['cerium-iv-by-sodium-oxalate', 1],
    ['ammonia-by-excess-of-acid', 1],
  ])('%s: %d equivalents in a mole', (methodId, equivalents) => {
    expect(equivalentsOfTitrant(methodOf(methodId))).toBe(equivalents);
  });

  test('is on the certificate where the house rule states it, to as many decimals', () => {
    const certificate = (changes: Partial<Plain<HouseRules>>) => {
      const { state } = series(changes);
      return issueCertificate(state, judgeRun(state), decision);
    };
    expect(certificate({}).normality).toBeNull();
    const { normality, molarity } = certificate({ statesNormality: true });
    expect(normality).toEqual({ value: molarity, equivalentsPerMole: 1 });
  });
});

test('dichromate is advised to be weighed, unless the house standardizes it', () => {
  const { bottle } = references();
  const given = (substanceId: string, methodId: string) => ({
    bottle: { ...bottle, substanceId },
    method: methodOf(methodId),
  });
  const dichromate = given('potassium-dichromate', 'dichromate-by-iron-ii');
  expect(adviceAgainst(dichromate, PLAIN_RULES)).toMatch(/dichromate is itself the standard/);
  const titrated = { ...PLAIN_RULES, primaryTitrants: 'titrated' } as const;
  expect(adviceAgainst(dichromate, titrated)).toBeNull();
  const hydroxide = given('sodium-hydroxide', 'naoh-by-khp');
  const iron = given('ammonium-iron-ii-sulfate-hexahydrate', 'iron-ii-by-dichromate');
  for (const other of [hydroxide, iron]) {
    expect(adviceAgainst(other, PLAIN_RULES)).toBeNull();
  }
});

test('what goes out of use while a run is made is named, and asks for a reason; the rest of the shelf does not', () => {
  const { setUp } = concordantSeries().state;
  const withdrawn = { reason: 'recalled', by: 'ines', at: '2026-03-02T09:00:00.000Z', factId: 'w' };
  const lot = { ...khpLot(), withdrawn };
  const other = { ...lot, id: 'lot-other' };
  const now = { bottles: [], lots: [other, lot], equipment: [] };
  expect(outOfUse(setUp, stored(now))).toEqual([{ name: 'Lot K-22', reason: 'recalled' }]);
  expect(outOfUseFindings(setUp, stored(now))).toMatchObject([
    { code: 'out-of-use-since', severity: 'unlikely' },
  ]);
  expect(outOfUseFindings(setUp, stored(now)).map(findingText)).toEqual([
    'Lot K-22 is out of use: recalled. Say why the result stands all the same.',
  ]);
  expect(outOfUse(setUp, { ...now, lots: [stored(other), khpLot()] })).toEqual([]);
});

describe('rules that are not the house’s', () => {
  const house = { ...PLAIN_RULES, firstIsRough: false, agreeAtLeast: 4, rinses: 5 };
  const lax = () => series({ rinses: 5 }, references({ rulesInForce: house }));

  test('are told in the order of the work, ask for a reason and stand on the certificate', () => {
    const { state } = lax();
    const judgement = judgeRun(state);
    expect(codesOf(lax())).toContain('rules-deviate');
    const told = 'How many must agree: 3 titrations (house rule: 4 titrations).';
    expect(issueCertificate(state, judgement, decision).deviations).toEqual([told]);
    expect(issueCertificate(series({}).state, judgement, decision).deviations).toEqual([]);
  });

  test('are compared by what they say, not by how a figure is written', () => {
    const written = { ...PLAIN_RULES, concordanceRelativeRangePercent: '0.30' };
    expect(deviatingRules(stored(written), PLAIN_RULES)).toEqual([]);
    const other = { ...written, concordanceRelativeRangePercent: '0.31', firstIsRough: false };
    expect(deviatingRules(stored(other), PLAIN_RULES)).toEqual([
      'firstIsRough',
      'concordanceRelativeRangePercent',
    ]);
  });
});

test.each([
  ['agreeAtLeast', 1, 2, 11, 10],
  ['concordanceRangeMl', '0.004', '0.005', '1.01', '1'],
  ['concordanceRsdPercent', '0.009', '0.01', '5.1', '5'],
  ['farFromNominalAskPercent', '0.09', '0.1', '50.1', '50'],
  ['nominalTolerancePercent', '0.09', '0.1', '50.1', '50'],
] as const)('the rule %s has bounds on both sides', (key, below, least, above, most) => {
  const wide = { titrationsAtMost: 20, farFromNominalReasonPercent: decimalText('50') };
  const codes = (value: number | string) =>
    checkRules({ ...PLAIN_RULES, ...wide, [key]: value }).map(({ code }) => code);
  expect([codes(least), codes(most)]).toEqual([[], []]);
  expect([codes(below), codes(above)]).toEqual([
    ['out-of-bounds'],
    // Beyond the limit for a reason, too.
    key === 'farFromNominalAskPercent'
      ? ['out-of-bounds', 'reason-before-question']
      : ['out-of-bounds'],
  ]);
});

test('the rules in force are the last that were on record by then', () => {
  const facts = [
    ['laboratory.founded', '2026-01-01', {}] as const,
    ['laboratory.rules-set', '2026-02-01', { rules: { rinses: 4 } }] as const,
    ['laboratory.rules-set', '2026-03-01', { rules: { rinses: 5 } }] as const,
  ].map(([kind, day, body]) => ({
    ...{ kind, body, recordedAt: `${day}T08:00:00.000Z` },
  })) as unknown as LaboratoryFact[];
  const rinsesAt = (at: string): number => rulesAt(facts, at).rinses;
  expect(rinsesAt('2026-01-31T08:00:00.000Z')).toBe(UNWRITTEN_RULES.rinses);
  expect(rinsesAt('2026-02-01T08:00:00.000Z')).toBe(4);
  expect(rinsesAt('2026-03-01T07:59:59.999Z')).toBe(4);
  expect(rinsesAt('2026-03-01T08:00:00.000Z')).toBe(5);
});

test.each([
  ['happened', '2026-03-02', []],
  ['happened', '2026-03-03', ['date-to-come']],
  ['happened', '1996-03-02', []],
  ['happened', '1996-03-01', ['year-mistyped']],
  ['to-come', '2056-03-02', []],
  ['to-come', '2056-03-03', ['year-mistyped']],
  ['to-come', '0001-01-01', ['year-mistyped']],
] as const)('a typed date that %s, %s: %j', (when, date, codes) => {
  const found = checkTypedDate('on', plainDate(date), when, plainDate('2026-03-02'));
  expect(found.map(({ code }) => code)).toEqual(codes);
});
