import { expect, test } from 'vitest';
import type { Fact } from '#core/record';
import { judgeRun } from '#core/titration';
import { concordantSeries, references, RunScript } from '../test-support/runs';
import { foldRecord, summarizeRun } from './index';

test('a run as lists show it follows its entries', () => {
  const open = summarizeRun(new RunScript().weigh(1, '0.4800').state);
  expect(open).toMatchObject({
    status: 'open',
    titrationsMade: 0,
    titrantTakenMl: 0,
    molarity: null,
  });
  const script = concordantSeries();
  const summary = summarizeRun(script.state);
  expect(summary).toMatchObject({
    bottleId: 'bottle-1',
    titrationsMade: 4,
    certificateNumber: null,
  });
  expect(summary.molarity).toBe(judgeRun(script.state).averaged?.mean);
  expect(summary.next).toMatch(/^You may stop/);
  const abandoned = script.add('run.abandoned', { reason: 'the stopcock leaks' });
  expect(summarizeRun(abandoned.state)).toMatchObject({
    status: 'abandoned',
    version: script.facts.length,
  });
});

test('each kind of record folds by its own rules; none gives nothing', () => {
  const { bottle, lot } = references();
  const { id, version, prepared, certified, ...asMade } = bottle;
  const fact = (kind: string, body: unknown, sequence: number): Fact => ({
    id: `f${String(sequence)}`,
    recordId: id,
    recordKind: 'bottle',
    kind,
    schemaVersion: 1,
    body,
    authorId: 'ines',
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
