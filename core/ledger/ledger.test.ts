import { expect, test } from 'vitest';
import type { Counted, Fact } from '#core/record';
import type { LotState } from '#core/reagent';
import { standardizationOf } from '../titration/run';
import { judgeRun } from '#core/titration/judging';
import { titrantTakenMl } from '#core/titration/run';
import {
  bottleOf,
  concordantSeries,
  khpLot,
  pipetteOf,
  references,
  RunScript,
} from '../test-support/runs';
import { KHP_PLAN, lotOf, PreparationScript } from '../test-support/preparations';
import { aroundWith } from '../test-support/around';
import { idOf, stored } from '../test-support/stored';
import {
  areSolutionsRelated,
  beginsRecord,
  countedOf,
  FACT_KINDS,
  foldRecord,
  isObservation,
  recordKindOf,
  stockLeft,
  summarizeRun,
  takenByRun,
  takenOf,
} from './index';

test('what is decided names what it rests on; what was seen is never refused for somebody else being quicker', () => {
  const decisions = FACT_KINDS.filter((kind) => !isObservation(kind) && !beginsRecord(kind));
  expect(decisions.toSorted()).toEqual([
    'bottle.certificate-withdrawn',
    'bottle.certified',
    'bottle.corrected',
    'bottle.returned',
    'bottle.withdrawn',
    'entry.returned',
    'entry.withdrawn',
    'equipment.corrected',
    'equipment.returned',
    'equipment.withdrawn',
    'laboratory.letterhead-set',
    'laboratory.logo-attached',
    'laboratory.logo-removed',
    'laboratory.renamed',
    'laboratory.rules-set',
    'laboratory.settings-set',
    'lot.classified',
    'lot.corrected',
    'lot.counted',
    'lot.returned',
    'lot.withdrawn',
    'method.returned',
    'method.withdrawn',
    'person.left',
    'person.renamed',
    'person.returned',
    'person.rights-changed',
    'preparation.bottled',
    'preparation.discarded',
    'run.abandoned',
    'run.answered',
    'run.certificate-withdrawn',
    'run.certified',
    'run.checked',
    'run.conflict-settled',
    'run.document-issued',
    'run.electrode-reading-struck',
    'run.end-point-taken-back',
    'run.flask-voided',
    'run.paused',
    'run.performed',
    'run.reading-corrected',
    'run.record-adopted',
    'run.report-withdrawn',
    'run.reported',
    'run.resumed',
    'run.returned',
    'run.volume-corrected',
    'run.weighing-corrected',
    'sample.corrected',
    'sample.dilution-struck',
    'sample.disposed',
    'sample.report-withdrawn',
    'sample.reported',
  ]);
  // Stored names: the first word of a fact's is the kind of its record.
  for (const kind of FACT_KINDS) expect(kind.split('.')[0]).toBe(recordKindOf(kind));
});

test('a run as lists show it follows its entries', () => {
  const open = summarizeRun(new RunScript().weigh(1, '0.4800').state);
  expect(open).toMatchObject({
    status: 'open',
    titrationsMade: 0,
    molarity: null,
  });
  const script = concordantSeries();
  const summary = summarizeRun(script.state);
  expect(summary).toMatchObject({
    bottleId: 'bottle-1',
    titrationsMade: 4,
    certificate: null,
  });
  expect(summary.molarity).toBe(judgeRun(script.state).averaged?.mean);
  expect(summary.next).toMatchObject({ code: 'may-stop', values: { count: 3 } });
  const abandoned = script.add('run.abandoned', { reason: 'the stopcock leaks' });
  expect(summarizeRun(abandoned.state)).toMatchObject({
    status: 'abandoned',
    version: script.facts.length,
  });
});

test('each kind of record folds by its own rules; none gives nothing', () => {
  const { bottle } = references();
  const lot = khpLot();
  const { id, version, prepared, certified, ...asMade } = bottle;
  const fact = (kind: string, body: unknown, sequence: number): Fact => ({
    id: idOf(`f${String(sequence)}`),
    recordId: id,
    recordKind: 'bottle',
    kind,
    schemaVersion: 1,
    body,
    authorId: idOf('ines'),
    deviceId: null,
    clockOffsetMs: null,
    deviceTime: '2026-03-02T08:00:00.000Z',
    basedOn: null,
    sequence,
    recordedAt: '2026-03-02T08:00:00.000Z',
  });
  const certificate = { ...certified[0], runId: 'r', molarity: '0.1021' };
  const facts = [fact('bottle.prepared', asMade, 1), fact('bottle.certified', certificate, 2)];
  expect(foldRecord('bottle', facts)).toMatchObject({
    code: '0417',
    version: version + 1,
    prepared: { by: prepared.by },
    certified: [{ molarity: '0.1021' }],
  });
  expect(foldRecord('lot', [fact('lot.registered', lot.lot, 1)])).toMatchObject({
    lot: { lotNumber: 'K-22' },
  });
  const laboratory = { name: 'Cellar', timeZone: 'Europe/Vienna' };
  expect(foldRecord('laboratory', [fact('laboratory.founded', laboratory, 1)])).toMatchObject(
    laboratory,
  );
  for (const kind of ['bottle', 'lot', 'equipment', 'laboratory'] as const) {
    expect(foldRecord(kind, [])).toBeNull();
  }
});

test('stock falls by what preparations and titrations took since the last count, and may fall below nothing', () => {
  const series = concordantSeries().state;
  const run = summarizeRun(series);
  const preparation = new PreparationScript(KHP_PLAN).weigh('5.1100').state;
  const khp = { ...lotOf('potassium-hydrogen-phthalate', { amountReceived: '6' }) };
  const { bottle } = references();
  const counts = new Map<string, Counted>();
  const count = (id: string, counted: Counted | null): void => {
    if (counted) counts.set(id, counted);
  };
  count('lot-khp', countedOf('lot', khp));
  count(khp.id, countedOf('lot', khp));
  count(bottle.id, countedOf('bottle', bottle));
  count('uncounted', countedOf('lot', lotOf('sodium-hydroxide', { amountReceived: null })));
  const taken = [
    ...takenByRun(run),
    ...takenOf('preparation', preparation, aroundWith()),
    { id: 'uncounted', amount: 1, at: '2026-03-02T08:00:00.000Z' },
  ];
  const left = stockLeft(counts, taken);
  // Four flasks of the series, 0.4802 + 0.4795 + 0.4811 + 0.4788 g; one preparation of 5.1100 g.
  expect(left.get('lot-khp')).toBeCloseTo(6 - 1.9196, 9);
  expect(left.get(khp.id)).toBeCloseTo(0.89, 9);
  expect(left.get('bottle-1')).toBeCloseTo(1000 - titrantTakenMl(series), 9);
  expect(left.has('uncounted')).toBe(false);
  const leftSince = (at: string): number | undefined => {
    const counted = stored<LotState>({
      ...khp,
      counted: { factId: 'c', by: 'ines', at, amountLeft: '4' },
    });
    count(khp.id, countedOf('lot', counted));
    return stockLeft(counts, taken).get(khp.id);
  };
  expect(leftSince('2026-03-03T08:00:00.000Z')).toBe(4);
  expect(leftSince('2026-03-01T08:00:00.000Z')).toBeCloseTo(-1.11, 9);
  // What was begun in the very moment of the count is in it.
  expect(leftSince(preparation.started.at)).toBe(4);
});

test('two solutions of a back-titration are related when one was standardized against the other', () => {
  const { references: base } = standardizationOf(concordantSeries().state);
  const certifiedBy = (runId: string) => ({
    runId,
    certificateNumber: '0415-1',
    molarity: '0.1002',
    expandedUncertainty: '0.0002',
    coverageFactor: '2.00',
    unrounded: null,
    certifiedOn: '2026-03-01',
    validUntil: '2026-06-01',
    corrections: null,
  });
  const hydroxide = bottleOf('sodium-hydroxide', { id: 'hydroxide' });
  const acid = bottleOf('hydrochloric-acid', { id: 'acid', certified: [certifiedBy('run-2')] });
  const vessel = pipetteOf('50');
  const given = {
    ...base,
    standard: { kind: 'bottle', bottle: hydroxide, vessel } as const,
    excess: { bottle: acid, vessel },
  };
  const run = (id: string, standardId: string) => ({
    ...summarizeRun(concordantSeries().state),
    id,
    taken: [{ id: standardId, amount: 100 }],
  });
  expect(areSolutionsRelated(given, [stored(run('run-2', 'hydroxide'))])).toBe(true);
  expect(areSolutionsRelated(given, [stored(run('run-2', 'carbonate'))])).toBe(false);
  expect(areSolutionsRelated(given, [stored(run('run-1', 'hydroxide'))])).toBe(false);
  const turned = {
    ...given,
    standard: { ...given.standard, bottle: acid },
    excess: { bottle: hydroxide, vessel },
  };
  expect(areSolutionsRelated(turned, [stored(run('run-2', 'hydroxide'))])).toBe(true);
  expect(areSolutionsRelated(base, [stored(run('run-2', 'hydroxide'))])).toBe(false);
});
