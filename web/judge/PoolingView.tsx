import { figureText, roundHalfEven, roundSignificant } from '#core/measurement';
import type { Result } from '#core/titration/judging';
import { poolScatter, twoSidedT } from '#core/statistics';
import { Table } from '../ui/Table';

type Pooling = NonNullable<Result['pooling']>;

function percentText(part: number): string {
  return `${figureText(roundHalfEven(100 * part, 3))} %`;
}

/** How the scatter of this series was pooled with what is known of it, with the numbers, and what other numbers of titrations would do. */
export function PoolingView({ pooling }: { readonly pooling: Pooling }) {
  const { known, knownFrom, series, ownSd, n, pooled } = pooling;
  const origin =
    knownFrom === 'series'
      ? `the last ${String(series)} series by this method`
      : 'what its readings, weighings and drops allow';
  return (
    <details className="mt-1 text-[15px]">
      <summary className="flex min-h-12 items-center font-semibold text-violet underline underline-offset-4 lg:min-h-9">
        How the scatter is pooled
      </summary>
      <p>
        <i>s</i>
        <sub>0</sub> = {percentText(known.sd)} with <i>ν</i>
        <sub>0</sub> = {known.degreesOfFreedom}, from {origin};{' '}
        {ownSd === null ? (
          'one titration has no scatter of its own.'
        ) : (
          <>
            this series <i>s</i> = {percentText(ownSd)} of {n}.
          </>
        )}
      </p>
      {ownSd !== null && (
        <p className="wrap-anywhere">
          <i>s</i>
          <sub>p</sub> = √( (<i>ν</i>
          <sub>0</sub> <i>s</i>
          <sub>0</sub>² + (<i>n</i> − 1) <i>s</i>²) / (<i>ν</i>
          <sub>0</sub> + <i>n</i> − 1) ) ={' '}
          <span className="font-mono">
            √(({known.degreesOfFreedom} · {percentText(known.sd)}² + {n - 1} · {percentText(ownSd)}
            ²) / {known.degreesOfFreedom + n - 1}) = {percentText(pooled.sd)}
          </span>
        </p>
      )}
      {pooled.chiSquared && (
        <p className={pooled.isTooLarge ? 'font-semibold text-blush' : 'text-ink-soft'}>
          <i>χ</i>² = {figureText(roundHalfEven(pooled.chiSquared.statistic, 2))}, at most{' '}
          {figureText(roundHalfEven(pooled.chiSquared.critical, 2))} (95 %):{' '}
          {pooled.isTooLarge
            ? 'it scatters more than that, and is not pooled.'
            : 'it may be pooled.'}
        </p>
      )}
      <Table
        caption="With a scatter like that of this series"
        heads={['titrations', 'pooled s', 'ν', 'k', 'of the mean']}
        rows={[2, 3, 5].map((count) => {
          const would = poolScatter(known, ownSd ?? known.sd, count);
          return {
            key: String(count),
            cells: [
              count,
              percentText(would.sd),
              would.degreesOfFreedom,
              figureText(roundHalfEven(twoSidedT(0.95, would.degreesOfFreedom), 2)),
              `${figureText(roundSignificant((100 * would.sd) / Math.sqrt(count), 2))} %`,
            ],
          };
        })}
      />
    </details>
  );
}
