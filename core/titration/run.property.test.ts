import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { RunFact, RunState } from '#core/titration';
import { RunScript } from '../test-support/runs';
import {
  amountIn,
  certificationFindings,
  checkRunFact,
  flaskUnderBurette,
  foldRun,
  judgeRun,
  nextStep,
  readingToCarryOver,
  titrantTakenMl,
  titreMl,
} from './index';

/** Something that an analyst, careful or not, might enter next. */
type Attempt =
  | { readonly do: 'weigh'; readonly flask: number; readonly mg: number }
  | { readonly do: 'difference'; readonly flask: number; readonly mg: number }
  | { readonly do: 'read'; readonly flask: number; readonly final: boolean; readonly cl: number }
  | { readonly do: 'carry'; readonly flask: number }
  | { readonly do: 'correct-reading'; readonly which: number; readonly cl: number }
  | { readonly do: 'correct-mass'; readonly which: number; readonly mg: number }
  | { readonly do: 'void'; readonly flask: number }
  | { readonly do: 'abandon' };

const flask = fc.integer({ min: 1, max: 4 });
// Readings in hundredths, from a little above the scale to a little below it.
const cl = fc.integer({ min: -100, max: 5200 });
const mg = fc.integer({ min: -10, max: 900 });
const which = fc.nat(30);
const attempt: fc.Arbitrary<Attempt> = fc.oneof(
  { weight: 4, arbitrary: fc.record({ do: fc.constant('weigh' as const), flask, mg }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('difference' as const), flask, mg }) },
  {
    weight: 12,
    arbitrary: fc.record({ do: fc.constant('read' as const), flask, final: fc.boolean(), cl }),
  },
  { weight: 3, arbitrary: fc.record({ do: fc.constant('carry' as const), flask }) },
  { weight: 3, arbitrary: fc.record({ do: fc.constant('correct-reading' as const), which, cl }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('correct-mass' as const), which, mg }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('void' as const), flask }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('abandon' as const) }) },
);

function propose(script: RunScript, run: RunState, given: Attempt): RunFact {
  const grams = (milligrams: number): string => (milligrams / 1000).toFixed(4);
  const millilitres = (hundredths: number): string => (hundredths / 100).toFixed(2);
  const reason = 'tried by the test';
  switch (given.do) {
    case 'weigh':
      return script.propose('run.flask-weighed', {
        flask: given.flask,
        weighing: { mode: 'tared', massG: grams(given.mg) },
        reason,
      });
    case 'difference':
      return script.propose('run.flask-weighed', {
        flask: given.flask,
        weighing: { mode: 'by-difference', beforeG: '20.1234', afterG: grams(20_123.4 - given.mg) },
        reason,
      });
    case 'read':
      return script.propose('run.burette-read', {
        flask: given.flask,
        moment: given.final ? 'final' : 'initial',
        readingMl: millilitres(given.cl),
        carriedFrom: null,
        reason,
      });
    case 'carry': {
      const last = readingToCarryOver(run);
      return script.propose('run.burette-read', {
        flask: given.flask,
        moment: 'initial',
        readingMl: last?.value ?? '0.00',
        carriedFrom: last?.factId ?? null,
        reason,
      });
    }
    case 'correct-reading':
      return script.propose('run.reading-corrected', {
        corrects: `f${String(given.which)}`,
        readingMl: millilitres(given.cl),
        reason,
      });
    case 'correct-mass':
      return script.propose('run.weighing-corrected', {
        corrects: `f${String(given.which)}`,
        weighing: { mode: 'tared', massG: grams(given.mg) },
        reason,
      });
    case 'void':
      return script.propose('run.flask-voided', { flask: given.flask, reason });
    case 'abandon':
      return script.propose('run.abandoned', { reason });
  }
}

/** What no sequence of accepted entries may break. */
function expectSound(run: RunState): void {
  const capacity = Number(run.references.burette.capacityMl);
  for (const item of run.flasks) {
    expect(amountIn(item)).toBeGreaterThan(0);
    for (const reading of [item.initial, item.final]) {
      if (!reading) continue;
      expect(Number(reading.value)).toBeGreaterThanOrEqual(0);
      expect(Number(reading.value)).toBeLessThanOrEqual(capacity);
    }
    const titre = titreMl(item);
    if (titre !== null) expect(Number(titre)).toBeGreaterThan(0);
    if (item.final) expect(item.initial).not.toBeNull();
  }
  expect(
    run.flasks.filter((item) => item.initial && !item.final && !item.voided).length,
  ).toBeLessThanOrEqual(1);
  expect(run.flasks.filter((item) => item.isRough).length).toBeLessThanOrEqual(1);
  expect(titrantTakenMl(run)).toBeGreaterThanOrEqual(0);

  const judgement = judgeRun(run);
  const counted = judgement.replicates.filter((replicate) => replicate.verdict === 'counts');
  expect(judgement.averaged?.n ?? 0).toBe(counted.length);
  if (judgement.result) {
    const { evaluation } = judgement.result;
    expect(evaluation.value).toBeGreaterThan(0);
    expect(evaluation.combinedStandardUncertainty).toBeGreaterThan(0);
    expect(evaluation.budget.reduce((total, line) => total + line.share, 0)).toBeCloseTo(1, 9);
  }
  const next = nextStep(run, judgement);
  expect(next.sentence).toMatch(/\.$/);
  const busy = flaskUnderBurette(run);
  if (run.status === 'open' && busy)
    expect(next).toMatchObject({
      action: expect.stringMatching(/^read-(final|stop|restart)$/) as string,
      flask: busy.number,
    });
  const decision = { certifiedOn: '2026-03-02', validUntil: '2026-04-02' };
  const findings = certificationFindings(run, judgement, decision);
  if (findings.length === 0) expect(judgement.isConcordant).toBe(true);
}

test('no sequence of entries that the checks let pass leads to an unsound run', () => {
  fc.assert(
    fc.property(fc.array(attempt, { minLength: 5, maxLength: 60 }), (attempts) => {
      const script = new RunScript();
      for (const given of attempts) {
        const run = script.state;
        const fact = propose(script, run, given);
        const isRefused = checkRunFact(run, fact).some(
          (finding) => finding.severity === 'impossible',
        );
        if (isRefused) continue;
        script.facts.push(fact);
        expect(script.state.version).toBe(script.facts.length);
        expectSound(script.state);
      }
      const stored = JSON.parse(JSON.stringify(script.facts)) as RunFact[];
      expect(foldRun(stored, script.references)).toEqual(script.state);
    }),
    { numRuns: 150 },
  );
});

test('what is refused changes nothing even when it reaches the fold', () => {
  fc.assert(
    fc.property(fc.array(attempt, { minLength: 5, maxLength: 40 }), (attempts) => {
      const script = new RunScript();
      for (const given of attempts) {
        const run = script.state;
        const fact = propose(script, run, given);
        const [finding] = checkRunFact(run, fact);
        // What refers to nothing is passed over by the fold too.
        const isEmpty = ['unknown-entry', 'unknown-flask', 'already-void'];
        if (finding && isEmpty.includes(finding.code)) {
          const after = foldRun([...script.facts, fact], script.references);
          expect(after?.flasks).toEqual(run.flasks);
        } else if (finding?.severity !== 'impossible') {
          script.facts.push(fact);
        }
      }
    }),
    { numRuns: 100 },
  );
});
