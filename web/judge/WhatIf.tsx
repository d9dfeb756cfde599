import type { ReactNode } from 'react';
import { lazy, Suspense, useMemo, useState } from 'react';
import { paperUnitsOf } from '#core/laboratory';
import { figureText, roundHalfEven, roundSignificant, signedText } from '#core/measurement';
import type { Judgement, Result } from '#core/titration/judging';
import type { RunState } from '#core/titration/run';
import { inOrder, leavingOut, otherSchools, smallerU } from '#core/titration/whatIf';
import { Table } from '../ui/Table';

/** The charting package is fetched when there is something to draw. */
const OrderChart = lazy(async () => ({ default: (await import('./OrderChart')).OrderChart }));

interface WhatIfProps {
  readonly run: RunState;
  readonly judgement: Judgement;
  readonly result: Result;
}

/** What would be otherwise, if: asked and computed when it is unfolded, and never switched by that. */
export function WhatIf({ run, judgement, result }: WhatIfProps) {
  const of = { run, judgement, result };
  return (
    <section aria-labelledby="what-if" className="mt-6">
      <h2 id="what-if" className="text-lg font-bold">
        What if
      </h2>
      <Unfolding of="The series in its order">{() => <Order {...of} />}</Unfolding>
      <Unfolding of="Without one of them">{() => <Without {...of} />}</Unfolding>
      <Unfolding of="What would make U smaller">{() => <Smaller {...of} />}</Unfolding>
      <Unfolding of="What other schools would say">{() => <Others {...of} />}</Unfolding>
    </section>
  );
}

/** A question whose answer is computed when somebody asks it. */
function Unfolding({ of, children }: { readonly of: string; readonly children: () => ReactNode }) {
  const [isOpen, setOpen] = useState(false);
  return (
    <details
      onToggle={(event) => {
        setOpen(event.currentTarget.open);
      }}
    >
      <summary className="flex min-h-12 items-center font-semibold text-violet underline underline-offset-4 lg:min-h-9">
        {of}
      </summary>
      {isOpen && <div className="mb-3">{children()}</div>}
    </details>
  );
}

function Order({ judgement, result }: WhatIfProps) {
  const { points, trend } = inOrder(judgement);
  if (points.length < 2) return <p>One titration has no order.</p>;
  const { value, expandedUncertainty } = result.evaluation;
  return (
    <>
      <Suspense fallback={<div className="h-[190px]" />}>
        <OrderChart
          points={points}
          mean={value}
          halfU={expandedUncertainty}
          bandPercent={judgement.bandPercent}
        />
      </Suspense>
      <p>
        {trend === null
          ? 'Fewer than four say nothing of a trend.'
          : trend.isSignificant
            ? `They drift: ${signedText(trend.percentPerTitration, 2)} % with each titration, which chance alone does in ${figureText(roundSignificant(100 * trend.probability, 2))} % of such series. A titrant that takes up air, or a burette that warms, does so.`
            : `No trend: ${signedText(trend.percentPerTitration, 2)} % with each titration is within what chance does.`}
      </p>
    </>
  );
}

function Without({ run, judgement, result }: WhatIfProps) {
  const rows = useMemo(() => leavingOut(run, judgement, result), [run, judgement, result]);
  return (
    <>
      <Table
        caption="Without one of the titrations"
        heads={['Without', 'c ± U / (mol/L)', 'Moves', 'of U', 'RSD / %']}
        rows={rows.map(
          ({ flask, value, uncertainty, movedPercent, movedByU, relativeSdPercent }) => ({
            key: String(flask),
            cells: [
              `flask ${String(flask)}`,
              `${figureText(value)} ± ${figureText(uncertainty)}`,
              `${signedText(movedPercent, 2)} %`,
              signedText(movedByU, 1),
              relativeSdPercent === null ? '–' : figureText(roundHalfEven(relativeSdPercent, 3)),
            ],
          }),
        )}
      />
      <p className="mt-1 text-[15px] text-ink-soft">
        A titration is left out for what happened to it, not for what it came to: void it at the
        bench, with the reason.
      </p>
    </>
  );
}

function Smaller({ run, judgement, result }: WhatIfProps) {
  const changes = useMemo(() => smallerU(run, judgement, result), [run, judgement, result]);
  const { molarity } = paperUnitsOf(run.setUp.rules);
  return (
    <Table
      caption="What would make U smaller"
      heads={['Change, the cheapest first', `U / (${molarity})`, 'of the present U']}
      rows={changes.map(({ what, expandedUncertainty, ofPresent }) => ({
        key: what,
        cells: [
          what,
          figureText(roundSignificant(expandedUncertainty, 2)),
          <span key="p" className={ofPresent <= 0.5 ? 'font-semibold text-leaf' : ''}>
            {figureText(roundHalfEven(100 * ofPresent, 0))} %{ofPresent <= 0.5 && ', halved'}
          </span>,
        ],
      }))}
    />
  );
}

function Others({ run, result }: WhatIfProps) {
  const answers = useMemo(() => otherSchools(run, result), [run, result]);
  if (answers.length === 0) return <p>The same: none of their rules changes a figure here.</p>;
  return (
    <>
      <Table
        caption="What other schools would say"
        heads={['By another rule', 'c ± U / (mol/L)', 'Averaged', 'Moves, of U']}
        rows={answers.map(({ says, value, uncertainty, averaged, movedByU }) => ({
          key: says,
          cells: [
            says,
            `${figureText(value)} ± ${figureText(uncertainty)}`,
            averaged,
            signedText(movedByU, 1),
          ],
        }))}
      />
      <p className="mt-1 text-[15px] text-ink-soft">
        The run keeps the rules that it began with. What a laboratory follows stands under House
        rules.
      </p>
    </>
  );
}
