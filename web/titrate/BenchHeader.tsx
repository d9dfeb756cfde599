import { figureText } from '#core/measurement';
import type { ReactNode } from 'react';
import { describeEndPoint } from '#core/chemistry';
import type { RunState } from '#core/titration/run';
import {
  arrangementOf,
  describeInstruments,
  describeStandard,
  describeTitrant,
  isAnalysis,
  sampleOf,
} from '#core/titration/setUp';
import { usePersonName } from '../app/records';
import { usePageHeading } from '../ui/Page';
import { ShortName } from '../ui/ShortName';

/** What is titrated with what, in one line; a phone has it in its menu. */
export function RunLine({ run }: { readonly run: RunState }) {
  const nameOf = usePersonName();
  const { burette, method } = run.references;
  const arrangement = arrangementOf(run.references);
  return (
    <>
      {isAnalysis(run.references) ? (
        <>
          {method.name}: {describeTitrant(run.references)} ·{' '}
        </>
      ) : (
        <>
          <ShortName of={run.references.method.standardId} own={method.own} />
          {arrangement.soughtIn === 'flask' && ' in the burette'}:{' '}
          {describeStandard(run.references)} ·{' '}
        </>
      )}
      {describeInstruments(arrangement)} · {burette.name} ·{' '}
      {describeEndPoint(method, run.setUp.rules)} · {nameOf(run.started.by)}
      {run.buretteChecked.at(-1)?.faults.length === 0 && ' · burette checked'}
    </>
  );
}

/** Which bottle is on the bench, and with what; what can be asked stands beside it. */
export function BenchHeader({
  run,
  children,
}: {
  readonly run: RunState;
  readonly children: ReactNode;
}) {
  const { references } = run;
  const heading = usePageHeading(`${nameOfSeries(run)} on the bench`);
  return (
    <header className="flex items-start justify-between gap-x-4 border-b-2 border-ink pb-2">
      <div className="min-w-0">
        <h1 ref={heading} tabIndex={-1} className="text-xl font-bold md:text-2xl">
          {nameOfSeries(run)}:{' '}
          {isAnalysis(references) ? (
            sampleOf(references).state.sample.description
          ) : (
            <>
              <ShortName of={references.bottle.substanceId} own={references.bottle.own} />{' '}
              {figureText(references.bottle.nominalMolarity ?? '')} mol/L
            </>
          )}
        </h1>
        <p className="text-sm leading-tight text-ink-soft max-md:hidden">
          <RunLine run={run} />
        </p>
      </div>
      <div className="flex shrink-0 gap-2">{children}</div>
    </header>
  );
}

/** What is on the bench, as a hand calls it: a bottle, or a sample. */
export function nameOfSeries({ references }: Pick<RunState, 'references'>): string {
  return isAnalysis(references)
    ? `Sample ${sampleOf(references).state.sample.code}`
    : `Bottle ${references.bottle.code}`;
}
