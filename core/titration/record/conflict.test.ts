import type { Plain } from '#core/grammar';
import { plainDate } from '#core/grammar';
import { stepText } from '#core/wording';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { RunFact, RunFactBodies } from '#core/titration/record';
import type { Flask, ReadingPlace, RunState } from '#core/titration/run';
import { isObservation, restsOn } from '../../ledger';
import { factsSeenBy } from '../../record';
import { concordantSeries, RunScript } from '../../test-support/runs';
import { idOf } from '../../test-support/stored';
import { nextStep } from '../guidance';
import { certificationFindings, judgeRun } from '../judging';
import { checkRunFact, foldRun } from './index';
import {
  entriesAt,
  FINAL,
  INITIAL,
  openConflicts,
  portionAmount,
  readingToCarryOver,
  rivalsOf,
  titrantTakenMl,
} from '../run';

const TABLET = 'tablet';
const DESK = 'desk';

/** A fact as another device made it, on the strength of what it had seen. */
function from<K extends keyof RunFactBodies>(
  script: RunScript,
  kind: K,
  body: Plain<RunFactBodies[K]>,
  seen: { deviceId: string; basedOn: number | null },
): RunFact {
  return { ...script.propose(kind, body), ...seen, deviceId: idOf(seen.deviceId) };
}

const reading = (flask: number, moment: 'initial' | 'final', readingMl: string) => ({
  flask,
  moment,
  readingMl,
  carriedFrom: null,
  reason: null,
});

/** A flask with two final readings, from two devices. */
function disputed(): RunScript {
  return new RunScript()
    .titrate(1, '0.4802', '0.10', '23.60')
    .weigh(2, '0.4795')
    .carryOver(2)
    .read(2, 'final', '46.99')
    .read(1, 'final', '23.55');
}

const rivalsAt = (flask: Flask | undefined, place: ReadingPlace) =>
  flask ? rivalsOf(flask, place) : [];

describe('two different entries for one place', () => {
  test('are both kept; the flask counts again when one has been settled on, and the other is told', () => {
    const script = disputed();
    expect(openConflicts(script.state)).toEqual([{ flask: 1, place: FINAL }]);
    const [flask] = script.state.flasks;
    expect([flask?.final?.value, rivalsAt(flask, FINAL).map((rival) => rival.value)]).toEqual([
      '23.60',
      ['23.55'],
    ]);
    const judgement = judgeRun(script.state);
    expect(judgement.replicates[0]).toMatchObject({ verdict: 'disputed' });
    expect(nextStep(script.state, judgement)).toMatchObject({ action: 'settle', flask: 1 });
    const decision = { certifiedOn: plainDate('2026-03-02'), validUntil: plainDate('2026-04-02') };
    expect(certificationFindings(script.state, judgement, decision)[0]?.code).toBe('conflict-open');

    const keeps = rivalsAt(flask, FINAL)[0]?.factId ?? '';
    const body = { keeps, reason: 'read again with the card behind it' };
    expect(checkRunFact(script.state, script.propose('run.conflict-settled', body))).toEqual([]);
    const after = script.add('run.conflict-settled', body).state;
    expect(openConflicts(after)).toEqual([]);
    expect(after.flasks[0]?.final).toMatchObject({
      value: '23.55',
      superseded: [{ value: '23.60', reason: body.reason }],
    });
    // The level at the end of flask 1 is the one at which flask 2 began.
    expect(after.flasks[1]?.initial).toMatchObject({ value: '23.55', carriedFromFlask: 1 });
    expect(
      checkRunFact(after, script.propose('run.conflict-settled', body)).map(({ code }) => code),
    ).toEqual(['unknown-entry']);
  });

  test('the standing one may be settled on too; a carried-over start can be replaced alone', () => {
    const script = disputed();
    const standing = script.state.flasks[0]?.final?.factId ?? '';
    script.add('run.conflict-settled', { keeps: standing, reason: 'the other was a slip' });
    expect(script.state.flasks[0]?.final).toMatchObject({
      value: '23.60',
      superseded: [{ value: '23.55' }],
    });
    const fillings = script.state.fillings.length;
    script.read(2, 'initial', '0.20');
    const rival = rivalsAt(script.state.flasks[1], INITIAL)[0]?.factId ?? '';
    script.add('run.conflict-settled', { keeps: rival, reason: 'it had been refilled' });
    const [first, second] = script.state.flasks;
    expect([first?.final?.value, second?.initial?.value]).toEqual(['23.60', '0.20']);
    expect(second?.initial?.carriedFromFlask).toBeNull();
    expect(script.state.fillings).toHaveLength(fillings + 1);
  });

  test('masses too; the same value twice is no conflict', () => {
    const script = new RunScript().weigh(1, '0.4802').weigh(1, '0.4802').weigh(1, '0.4900');
    expect(script.state.flasks[0]?.rivals.portion.map((rival) => rival.value)).toEqual([
      { kind: 'mass', weighing: { mode: 'tared', massG: '0.4900' } },
    ]);
    script.add('run.flask-voided', { flask: 1, reason: 'nobody knows which' });
    expect(openConflicts(script.state)).toEqual([]);
  });
});

test('an observation that arrives after the end is on record and in no figure', () => {
  const script = concordantSeries().add('run.abandoned', { reason: 'the stopcock leaks' });
  const before = judgeRun(script.state).averaged;
  script.read(4, 'final', '24.00').weigh(5, '0.4800');
  expect(script.state.late).toHaveLength(2);
  expect(judgeRun(script.state).averaged).toEqual(before);
});

test('readings that contradict each other give no titre', () => {
  const script = new RunScript().titrate(1, '0.4802', '23.60', '0.10');
  expect(judgeRun(script.state).replicates[0]).toMatchObject({
    titreMl: null,
    molarity: null,
    why: { code: 'contradictory' },
  });
});

describe('what the author of an observation could see', () => {
  test('is the version that it names and what its own device entered', () => {
    const script = new RunScript().weigh(1, '0.4802').read(1, 'initial', '0.10');
    const own = from(script, 'run.burette-read', reading(1, 'final', '23.60'), {
      deviceId: TABLET,
      basedOn: 3,
    });
    script.facts.push(own);
    const late = from(script, 'run.burette-read', reading(1, 'final', '23.65'), {
      deviceId: DESK,
      basedOn: 3,
    });
    expect(factsSeenBy(late, script.facts)).toHaveLength(3);
    expect(factsSeenBy({ ...late, deviceId: idOf(TABLET) }, script.facts)).toHaveLength(4);
    expect(factsSeenBy({ ...late, basedOn: null }, script.facts)).toHaveLength(4);
    const seen = foldRun(factsSeenBy(late, script.facts), script.references);
    expect(seen && checkRunFact(seen, late)).toEqual([]);
    expect(checkRunFact(script.state, late)[0]?.code).toBe('already-read');
  });
});

test('a later entry rests on the start, on the mass and the first reading of its flask, and on what it names', () => {
  const script = new RunScript().titrate(1, '0.4802', '0.10', '23.60').weigh(2, '0.4795');
  const [start, mass, initial, final, other] = script.facts;
  if (!start || !mass || !initial || !final || !other) throw new Error('the script is short');
  const rests = (later: RunFact): boolean[] =>
    [start, mass, initial, final, other].map((earlier) => restsOn(later, earlier));
  expect(rests(final)).toEqual([true, true, true, false, false]);
  expect(rests(initial)).toEqual([true, true, false, false, false]);
  expect(rests(script.propose('run.flask-voided', { flask: 1, reason: 'spilt' }))).toEqual([
    true,
    true,
    false,
    false,
    false,
  ]);
  expect(
    rests(
      script.propose('run.reading-corrected', {
        corrects: final.id,
        readingMl: '23.5',
        reason: 'x',
      }),
    ),
  ).toEqual([true, false, false, true, false]);
  const carried = { ...reading(2, 'initial', '23.60'), carriedFrom: final.id };
  expect(rests(script.propose('run.burette-read', carried))).toEqual([
    true,
    false,
    false,
    true,
    true,
  ]);
  expect(restsOn({ ...final, recordId: idOf('another') }, start)).toBe(false);
});

/** Every observation is in the state somewhere: standing, beside it, given up, late, or the same as another. */
function expectNothingLost(run: RunState, facts: readonly RunFact[]): void {
  const shown = JSON.stringify([run.flasks, run.late]);
  for (const { body } of facts.filter(({ kind }) => isObservation(kind))) {
    const value =
      'readingMl' in body
        ? body.readingMl
        : JSON.stringify(
            'weighing' in body ? body.weighing : 'measured' in body ? body.measured : [],
          );
    expect(shown).toContain(value);
  }
}

test('whatever two devices enter without seeing each other can be folded, judged and shown', () => {
  const entry = fc.record({
    device: fc.constantFrom(TABLET, DESK),
    what: fc.constantFrom(
      ...(['weigh', 'initial', 'final', 'carry', 'void', 'settle', 'abandon', 'incident'] as const),
    ),
    flask: fc.integer({ min: 1, max: 3 }),
    hundredths: fc.integer({ min: 0, max: 5000 }),
  });
  fc.assert(
    fc.property(fc.array(entry, { minLength: 4, maxLength: 30 }), (entries) => {
      const script = new RunScript();
      for (const { what, flask, hundredths } of entries) {
        const reason = 'tried by the test';
        const run = script.state;
        const value = (hundredths / 100).toFixed(2);
        const last = readingToCarryOver(run);
        const [conflict] = openConflicts(run);
        const isThere = run.flasks.some((item) => item.number === flask);
        if (what === 'weigh') script.weigh(flask, (0.1 + hundredths / 10_000).toFixed(4));
        else if (!isThere) continue;
        else if (what === 'initial' || what === 'final') script.read(flask, what, value);
        else if (what === 'carry' && last) script.carryOver(flask);
        else if (what === 'incident') {
          const measured = { what: 'volumeMl', value } as const;
          script.add('run.incident-noted', {
            flask,
            incidentId: 'stopcock-leaks',
            measured,
            waterMl: null,
            volumetricFlaskMl: null,
            remark: '',
          });
        } else if (what === 'void') script.add('run.flask-voided', { flask, reason });
        else if (what === 'abandon' && hundredths < 300) script.add('run.abandoned', { reason });
        else if (what === 'settle' && conflict) {
          const contested = run.flasks.find(({ number }) => number === conflict.flask);
          const keeps = contested ? (entriesAt(contested, conflict.place)[1]?.factId ?? '') : '';
          script.add('run.conflict-settled', { keeps, reason });
        }
        expectNothingLost(script.state, script.facts);
        const judgement = judgeRun(script.state);
        expect(stepText(nextStep(script.state, judgement).says)).toMatch(/\.$/);
        expect(titrantTakenMl(script.state)).toBeGreaterThanOrEqual(0);
        expect(judgement.averaged?.n ?? 0).toBe(
          judgement.replicates.filter((item) => item.verdict === 'counts').length,
        );
      }
    }),
    { numRuns: 150 },
  );
});

test('a value that was given up twice over can still be read', () => {
  const reason = 'weighed again';
  const script = new RunScript().weigh(1, '0.1000').weigh(1, '0.1001');
  const settleForRival = (): void => {
    const keeps = script.state.flasks[0]?.rivals.portion[0]?.factId ?? '';
    script.add('run.conflict-settled', { keeps, reason });
  };
  settleForRival();
  script.weigh(1, '0.1002');
  settleForRival();
  const portion = script.state.flasks[0]?.portion;
  expect(portion && portionAmount(portion.value)).toBe('0.1002');
  expect(portion?.superseded.map(({ value }) => portionAmount(value))).toEqual([
    '0.1000',
    '0.1001',
  ]);
});
