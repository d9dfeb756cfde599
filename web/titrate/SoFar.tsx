import { foundUnit } from './found';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { explainRun } from '#core/explanation';
import { figureText, roundHalfEven } from '#core/measurement';
import type { Judgement } from '#core/titration/judging';
import type { RunState } from '#core/titration/run';
import { isAnalysis, soughtOf } from '#core/titration/setUp';
import { CorrectionsLine } from '../judge/CorrectionsLine';
import { Term } from '../ui/Term';
import { MolarityScale } from './MolarityScale';

interface SoFarProps {
  readonly run: RunState;
  readonly judgement: Judgement;
}

/** What the numbers say so far. */
export function SoFar({ run, judgement }: SoFarProps) {
  return (
    <div className="grid grid-cols-1 items-center gap-6 pt-2 xl:grid-cols-[minmax(0,1fr)_300px]">
      <MolarityScale
        judgement={judgement}
        nominal={soughtOf(run.references).expected}
        {...(isAnalysis(run.references) && { found: `content / (${foundUnit(run)})` })}
      />
      <div className="text-[15px] leading-snug">
        <InWords run={run} judgement={judgement} />
      </div>
    </div>
  );
}

function InWords({ run, judgement }: SoFarProps) {
  // Every slip is tried on every entry: not at every key.
  const diagnosis = useMemo(() => explainRun(run, judgement), [run, judgement]);
  const { averaged, result, limit, spread } = judgement;
  if (!averaged || !result) return <NoneCounts run={run} judgement={judgement} />;
  return (
    <>
      <p className="text-lg font-bold">
        <span className="font-mono">{figureText(result.rounded.value)}</span> {foundUnit(run)} so
        far
      </p>
      <p className="text-ink-soft">
        <Term of="expanded-uncertainty">
          <i>U</i>
        </Term>{' '}
        ≈ {figureText(result.rounded.uncertainty)} (
        <Term of="coverage-factor">
          <i>k</i>
        </Term>{' '}
        = {figureText(roundHalfEven(result.evaluation.coverageFactor, 2))}), from {averaged.n}{' '}
        {averaged.n === 1 ? 'titration' : 'titrations'}
      </p>
      <CorrectionsLine result={result} />
      {averaged.n > 1 && (
        <p className="text-ink-soft">
          spread {figureText(spread.averaged ?? '')} of the {figureText(limit)} allowed
        </p>
      )}
      {diagnosis?.isOutOfLine && (
        <p className="font-semibold text-blush">
          Out of line: {diagnosis.explanations[0]?.name ?? 'no known slip'}?
        </p>
      )}
      <Link
        to={`/runs/${run.id}/judge`}
        className="flex min-h-12 items-center font-semibold text-violet underline underline-offset-4"
      >
        Judge it
      </Link>
    </>
  );
}

function NoneCounts({ run, judgement }: SoFarProps) {
  const { agreeAtLeast, firstIsRough } = run.setUp.rules;
  return (
    <p className="text-ink-soft">
      No titration counts yet. {agreeAtLeast} must agree within {figureText(judgement.limit)}
      {firstIsRough && (
        <>
          ; the first one is <Term of="rough" /> and left out
        </>
      )}
      .
    </p>
  );
}
