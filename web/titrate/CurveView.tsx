import { lazy, Suspense } from 'react';
import { figureText, roundHalfEven, roundSignificant } from '#core/measurement';
import type { Flask, RunState } from '#core/titration/run';
import {
  curveEndsOf,
  curveOf,
  electrodeQuantityOf,
  halfEquivalenceOf,
} from '#core/titration/figures';
import { CURVE_WAYS } from '#core/wording';

const CurveChart = lazy(async () => ({ default: (await import('./CurveChart')).CurveChart }));

/** The curve of an electrode and the end points that it gives; the one that counts stands out. */
export function CurveView({ run, flask }: { readonly run: RunState; readonly flask: Flask }) {
  const points = curveOf(flask);
  const found = curveEndsOf(run, flask);
  const { ends, counts, remark } = found;
  const half = halfEquivalenceOf(run, flask, points, found);
  return (
    <div>
      <Suspense fallback={<div className="h-[300px]" />}>
        <CurveChart
          points={points}
          quantity={electrodeQuantityOf(run.references.method)}
          endMl={counts?.volumeMl ?? null}
        />
      </Suspense>
      {ends.length > 0 && (
        <dl className="mt-2 grid grid-cols-[minmax(0,1fr)_auto] gap-x-4 gap-y-1">
          {ends.map((end) => (
            <div
              key={end.way}
              className={`col-span-2 grid grid-cols-subgrid items-baseline ${end === counts ? 'font-bold' : 'text-ink-soft'}`}
            >
              <dt>
                {CURVE_WAYS[end.way]}
                {end === counts && <span className="ml-2 text-leaf">counts</span>}
              </dt>
              <dd className="font-mono">
                {figureText(roundHalfEven(end.volumeMl, 3))} ±{' '}
                {figureText(roundHalfEven(end.standardUncertaintyMl, 3))} mL
              </dd>
            </div>
          ))}
        </dl>
      )}
      {half && (
        <p className="mt-2">
          p<i>K</i>
          <sub>a</sub>′ about {figureText(roundHalfEven(half.pKa, 2))}, ± 0.05 at best, from the pH
          half way to the end. It is conditional: at {figureText(run.setUp.temperatureC)} °C and an
          ionic strength of about {figureText(roundSignificant(half.ionicStrengthMolPerL, 1))}{' '}
          mol/L, for one step of a weak acid or base.
        </p>
      )}
      {remark !== null && points.length > 0 && <p className="mt-2 text-ink-soft">{remark}</p>}
    </div>
  );
}
