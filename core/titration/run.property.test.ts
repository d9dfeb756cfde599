import fc from 'fast-check';
import { expect, test } from 'vitest';
import { plainDate } from '#core/grammar';
import { findingText, stepText } from '#core/wording';
import type { RunFact, RunFactBodies } from '#core/titration/record';
import type { RunState } from '#core/titration/run';
import type { Attempt } from '../test-support/attempts';
import { attempts, bodyOf, SCRIPTS } from '../test-support/attempts';
import type { RunScript } from '../test-support/runs';
import { amountIn } from './figures';
import { nextStep } from './guidance';
import { certificationFindings, judgeRun } from './judging';
import { checkRunFact, foldRun } from './record';
import { flaskUnderBurette, isBlank, pauseOf, readingsOf, takenBy, titreMl } from './run';

const series = fc.array(attempts, { minLength: 5, maxLength: 60 });
const arrangement = fc.constantFrom(...SCRIPTS);

function propose(script: RunScript, run: RunState, given: Attempt): RunFact {
  const ids = script.facts.map(({ id }) => id);
  return script.propose(given.kind, bodyOf(given, run, ids) as RunFactBodies[typeof given.kind]);
}

/** What no sequence of accepted entries may break. */
function expectSound(run: RunState): void {
  const capacity = Number(run.references.burette.capacityMl);
  for (const item of run.flasks) {
    if (!isBlank(item)) expect(amountIn(item)).toBeGreaterThan(0);
    for (const { entry } of readingsOf(item)) {
      expect(Number(entry.value)).toBeGreaterThanOrEqual(0);
      expect(Number(entry.value)).toBeLessThanOrEqual(capacity);
    }
    const titre = titreMl(item);
    if (titre !== null && !isBlank(item)) expect(Number(titre)).toBeGreaterThan(0);
    if (item.final) {
      expect(item.initial).not.toBeNull();
      expect(item.refills.every(({ restart }) => restart !== null)).toBe(true);
    }
    if (item.grade) expect(item.final).not.toBeNull();
  }
  expect(
    run.flasks.filter((item) => item.initial && !item.final && !item.voided).length,
  ).toBeLessThanOrEqual(1);
  expect(run.flasks.filter((item) => item.isRough).length).toBeLessThanOrEqual(1);
  for (const { amount } of takenBy(run)) expect(amount).toBeGreaterThanOrEqual(0);

  const judgement = judgeRun(run);
  const counted = judgement.replicates.filter((replicate) => replicate.verdict === 'counts');
  expect(judgement.averaged?.n ?? 0).toBe(counted.length);
  if (judgement.result) {
    const { evaluation } = judgement.result;
    expect(evaluation.value).toBeGreaterThan(0);
    expect(evaluation.combinedStandardUncertainty).toBeGreaterThan(0);
    expect(evaluation.budget.reduce((total, line) => total + line.share, 0)).toBeCloseTo(1, 9);
    // Two ways to the same mean: the numbers flask by flask, and the measurement model.
    expect(evaluation.value / (judgement.averaged?.mean ?? 0)).toBeCloseTo(1, 9);
  }
  const next = nextStep(run, judgement);
  expect(stepText(next.says)).toMatch(/\.$/);
  const busy = flaskUnderBurette(run);
  if (run.status === 'open' && busy && !pauseOf(run)) {
    expect(next).toMatchObject({
      action: expect.stringMatching(/^read-(final|stop|restart)$/) as string,
      flask: busy.number,
    });
  }
  const decision = { certifiedOn: plainDate('2026-03-02'), validUntil: plainDate('2026-04-02') };
  const findings = certificationFindings(run, judgement, decision);
  if (findings.length === 0) expect(judgement.isConcordant).toBe(true);
}

test('no sequence of entries that the checks let pass leads to an unsound run, in any arrangement', () => {
  fc.assert(
    fc.property(arrangement, series, (begin, given) => {
      const script = begin();
      for (const one of given) {
        const run = script.state;
        const fact = propose(script, run, one);
        const found = checkRunFact(run, fact);
        for (const finding of found) expect(findingText(finding)).toMatch(/^[A-Z].*[.?]$/);
        const isRefused = found.some((finding) => finding.severity === 'impossible');
        if (isRefused) continue;
        script.facts.push(fact);
        expect(script.state.version).toBe(script.facts.length);
        expectSound(script.state);
      }
      const stored = JSON.parse(JSON.stringify(script.facts)) as RunFact[];
      expect(foldRun(stored, script.references)).toEqual(script.state);
    }),
    { numRuns: 250 },
  );
}, 120_000);

test('what is refused changes nothing even when it reaches the fold', () => {
  fc.assert(
    fc.property(arrangement, series, (begin, given) => {
      const script = begin();
      for (const one of given) {
        const run = script.state;
        const fact = propose(script, run, one);
        const [finding] = checkRunFact(run, fact);
        // What refers to nothing is passed over by the fold too.
        const isEmpty = ['unknown-entry', 'unknown-flask', 'already-void', 'no-stop'];
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
}, 120_000);
