import { figureText } from '#core/measurement';
import { bottleIdOf } from '#core/titration/setUp';
import { stepText } from '#core/wording';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { Loading } from '../app/Loading';
import { usePersonName, useRecordsOf, useRuns } from '../app/records';
import { useSession } from '../app/session';
import { samplesText } from '../samples/wording';
import { useWaiting } from '../outbox/useOutbox';
import { Page } from '../ui/Page';
import { Sentence } from '../ui/ShortName';
import { instantText } from '../ui/typeset';
import { TwoWays } from './TwoWays';

/** The runs on the bench, and the way to a new one. */
export function TitratePage() {
  const { laboratory } = useSession();
  const open = useRuns();
  const nameOf = usePersonName();
  const waiting = useWaiting();
  const begunHere = waiting.flatMap(({ fact, refusal }) =>
    fact.kind === 'run.started' && refusal === null ? [fact] : [],
  );
  const bottles = useRecordsOf('bottle', [
    ...(open ?? []).map(({ bottleId }) => bottleId),
    ...begunHere.map(({ body }) => bottleIdOf(body)),
  ]);
  if (!open) return <Loading />;
  return (
    <Page title="Titrate" tabTitle="Titrate" lead="Runs on the bench">
      {open.length + begunHere.length === 0 && (
        <p className="text-lg text-ink-soft">No run is open.</p>
      )}
      <ul className="flex flex-col gap-4">
        {begunHere.map(({ recordId, body }) => (
          <RunCard
            key={recordId}
            id={recordId}
            title={titleOf(bottles.find(({ id }) => id === bottleIdOf(body))?.code)}
          >
            begun on this device; the server does not know of it yet
          </RunCard>
        ))}
        {open.map((run) => {
          const bottle = bottles.find(({ id }) => id === run.bottleId);
          return (
            <RunCard
              key={run.id}
              id={run.id}
              title={
                run.samples.length > 0
                  ? `${samplesText(run.samples.map(({ code }) => code))}: ${run.method}`
                  : `Bottle ${bottle?.code ?? ''}, ${figureText(bottle?.nominalMolarity ?? '')} mol/L`
              }
              next={stepText(run.next)}
            >
              begun {instantText(run.startedAt, laboratory.timeZone)} by {nameOf(run.startedBy)} ·
              titrations made: {run.titrationsMade}
            </RunCard>
          );
        })}
      </ul>
      <TwoWays />
    </Page>
  );
}

/** A bottle whose code somebody else gave as well has none until it takes another. */
function titleOf(code: string | undefined): string {
  return code === undefined ? 'A bottle that needs a new code' : `Bottle ${code}`;
}

/** A run on the bench, and the way back to it. */
function RunCard({
  id,
  title,
  next,
  children,
}: {
  readonly id: string;
  readonly title: string;
  /** What comes next, where that is known. */
  readonly next?: string;
  readonly children: ReactNode;
}) {
  return (
    <li>
      <Link
        to={`/runs/${id}`}
        className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-6 rounded-md border border-rule-strong bg-sheet p-5 hover:border-violet"
      >
        <span>
          <span className="block text-lg font-bold">{title}</span>
          {next !== undefined && (
            <span className="mt-1 block text-xl">
              <Sentence text={next} />
            </span>
          )}
          <span className="mt-1 block text-sm text-ink-soft">{children}</span>
        </span>
        <span className="font-semibold text-violet underline underline-offset-4">Go on</span>
      </Link>
    </li>
  );
}
