import { stepText } from '#core/wording';
import fc from 'fast-check';
import { renderToStaticMarkup } from 'react-dom/server';
import { MemoryRouter } from 'react-router';
import { afterAll, beforeAll, expect, test, vi } from 'vitest';
import type { RunFact, RunFactBodies } from '#core/titration/record';
import type { RunState } from '#core/titration/run';
import { forecastFlask } from '#core/titration/figures';
import { nextStep } from '#core/titration/guidance';
import { judgeRun } from '#core/titration/judging';
import { checkRunFact, foldRun } from '#core/titration/record';
import { flaskOf } from '#core/titration/run';
import { buretteLiquid, soughtOf } from '#core/titration/setUp';
import { isObservation } from '#core/ledger';
import { factsSeenBy } from '#core/record';
import { attempts, bodyOf, SCRIPTS } from '../../core/test-support/attempts';
import type { RunScript } from '../../core/test-support/runs';
import { idOf } from '../../core/test-support/stored';
import { ReplicateTable } from '../judge/ReplicateTable';
import { BuretteDrawing } from './BuretteDrawing';
import { FlaskColumn } from './FlaskColumn';
import { MolarityScale } from './MolarityScale';

beforeAll(() => {
  vi.stubGlobal('sessionStorage', { getItem: () => null });
});
afterAll(() => {
  vi.unstubAllGlobals();
});

const NOTHING = (): void => undefined;
const ACTIONS = {
  onTitrate: NOTHING,
  onVoid: NOTHING,
  onSettle: NOTHING,
  onCorrectPortion: NOTHING,
  onCorrectReading: NOTHING,
};

/** The bench as it stands, drawn. */
function draw(run: RunState): string {
  const judgement = judgeRun(run);
  const step = nextStep(run, judgement);
  const flask = flaskOf(run, step.flask);
  const levelMl = run.level === null ? null : Number(run.level.readingMl);
  return renderToStaticMarkup(
    <MemoryRouter>
      <p>{stepText(step.says)}</p>
      <BuretteDrawing
        burette={run.references.burette}
        liquid={buretteLiquid(run.references, run.setUp.rules)}
        levelMl={levelMl}
        startedMl={null}
        forecast={flask ? forecastFlask(run, flask, levelMl).onBurette : null}
      />
      {judgement.replicates.map((replicate) => (
        <FlaskColumn
          key={replicate.flask.number}
          run={run}
          replicate={replicate}
          isCurrent={replicate.flask.number === step.flask}
          mayTitrate
          timerMinutes={5}
          actions={ACTIONS}
        />
      ))}
      <MolarityScale judgement={judgement} nominal={soughtOf(run.references).expected} />
      <ReplicateTable run={run} judgement={judgement} />
    </MemoryRouter>,
  );
}

/** Two devices that do not see each other's last entries: what each finds sensible is kept. */
function enter(
  script: RunScript,
  given: { readonly kind: string },
  body: object,
  device: string,
  behind: number,
): void {
  const fact: RunFact = {
    ...script.propose(given.kind as keyof RunFactBodies, body as RunFactBodies['run.started']),
    deviceId: idOf(device),
    basedOn: Math.max(1, script.facts.length - behind),
  };
  const seen = isObservation(fact.kind) ? factsSeenBy(fact, script.facts) : script.facts;
  const run = foldRun(seen, script.references);
  const isSensible =
    run && !checkRunFact(run, fact).some(({ severity }) => severity === 'impossible');
  if (isSensible) script.facts.push(fact);
}

test('500 sequences on two devices: there is no state that the bench cannot show', () => {
  const entry = fc.record({
    attempt: attempts,
    device: fc.constantFrom('tablet', 'desk'),
    behind: fc.nat(3),
  });
  fc.assert(
    fc.property(
      fc.constantFrom(...SCRIPTS),
      fc.array(entry, { minLength: 5, maxLength: 40 }),
      (begin, entries) => {
        const script = begin();
        for (const { attempt, device, behind } of entries) {
          const ids = script.facts.map(({ id }) => id);
          enter(script, attempt, bodyOf(attempt, script.state, ids), device, behind);
        }
        const { state } = script;
        const drawn = draw(state);
        expect(drawn).not.toMatch(/NaN|undefined|Infinity|\[object/);
        for (const { number } of state.flasks) expect(drawn).toContain(`Flask ${String(number)}`);
      },
    ),
    { numRuns: 500 },
  );
}, 300_000);
