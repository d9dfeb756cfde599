import { lazy, Suspense, useState } from 'react';
import type { Simulation } from '#core/measurement';
import { figureText, roundHalfEven, roundToUncertainty, validate } from '#core/measurement';
import type { Result } from '#core/titration/judging';
import { ComputationStatus } from '../compute/ComputationStatus';
import { useComputation } from '../compute/useComputation';
import { Button } from '../ui/Button';
import { Table } from '../ui/Table';

/** The charting package is fetched when there is something to draw. */
const Histogram = lazy(async () => ({ default: (await import('./Histogram')).Histogram }));

const TRIALS = 1_000_000;

/** The same measurement equation, its distributions drawn a million times, beside the law of propagation. */
export function MonteCarlo({ result }: { readonly result: Result }) {
  const { state, start, cancel } = useComputation<Simulation>();
  const [seed, setSeed] = useState(1);
  const run = (): void => {
    const { model, mutedInputIds, correlations, evaluation } = result;
    const { unit } = evaluation;
    const request = { model, unit, mutedInputIds, correlations, trials: TRIALS, seed };
    start((worker, onProgress) => worker.simulate(request, onProgress));
    setSeed(seed + 1);
  };
  return (
    <section aria-labelledby="monte-carlo" className="mt-6">
      <h2 id="monte-carlo" className="text-lg font-bold">
        The same by Monte Carlo
      </h2>
      <p className="mb-3 text-[15px] text-ink-soft">
        Every effect is drawn from its distribution, and the equation worked out for each draw.
      </p>
      <ComputationStatus label="Trials" state={state} onCancel={cancel} />
      {state.kind === 'done' && <Outcome result={result} simulation={state.value} />}
      {state.kind !== 'running' && (
        <Button onClick={run}>
          {state.kind === 'done' ? 'Draw a million again' : 'Draw a million trials'}
        </Button>
      )}
    </section>
  );
}

interface OutcomeProps {
  readonly result: Result;
  readonly simulation: Simulation;
}

function Outcome({ result: { evaluation }, simulation }: OutcomeProps) {
  const { value, combinedStandardUncertainty, expandedUncertainty: half } = evaluation;
  // One figure more than the certificate shows, so that a difference can be seen.
  const shown = (figure: number): string =>
    roundToUncertainty(figure, combinedStandardUncertainty / 10).value;
  const { isValidated, differences, tolerance } = validate(evaluation, simulation);
  const line = (name: string, first: string, drawn: string) => ({
    key: name,
    cells: [
      name,
      <span key="first" className="font-mono whitespace-nowrap">
        {first}
      </span>,
      <span key="drawn" className="font-mono whitespace-nowrap">
        {drawn}
      </span>,
    ],
  });
  return (
    <div className="mb-4">
      <Suspense fallback={<div className="h-[200px]" />}>
        <Histogram simulation={simulation} at={[value - half, value, value + half]} />
      </Suspense>
      <Table
        caption="Law of propagation and Monte Carlo"
        heads={['mol/L', 'propagation', 'Monte Carlo']}
        rows={[
          line('molarity', shown(value), shown(simulation.mean)),
          line(
            'standard uncertainty',
            shown(combinedStandardUncertainty),
            // Student's t of one or two degrees of freedom has no variance.
            simulation.standardDeviation === null ? '–' : shown(simulation.standardDeviation),
          ),
          line('95 %, from', shown(value - half), shown(simulation.symmetricInterval[0])),
          line('95 %, to', shown(value + half), shown(simulation.symmetricInterval[1])),
          line('shortest, from', '–', shown(simulation.shortestInterval[0])),
          line('shortest, to', '–', shown(simulation.shortestInterval[1])),
        ]}
      />
      <p className="mt-2 text-[15px]">
        {isValidated
          ? 'Both give the same interval: the law of propagation holds here.'
          : `The ends of the intervals differ by up to ${figureText(roundHalfEven((100 * Math.max(...differences)) / half, 0))} % of U, more than ${figureText(roundHalfEven((100 * tolerance) / half, 0))} %. The interval of the law of propagation is certified, though Monte Carlo describes it better.`}
      </p>
    </div>
  );
}
