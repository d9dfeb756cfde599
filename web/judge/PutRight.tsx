import { figureText, roundHalfEven, signedText } from '#core/measurement';
import type { Result } from '#core/titration/judging';
import type { IssuedCertificate, RunState } from '#core/titration/run';
import { certificateLink, standardizationOf } from '#core/titration/run';
import { endOfSentence } from '#core/wording';
import { useListOn } from '../app/lists';
import { usePersonName } from '../app/records';
import { RunsTable } from '../app/RunsTable';
import { useSession } from '../app/session';
import { ButtonLink } from '../ui/Button';
import { Table } from '../ui/Table';
import { instantText } from '../ui/typeset';

interface PutRightProps {
  readonly run: RunState;
  readonly result: Result;
}

/** The certificate that was withdrawn beside what the entries come to now, and what rested on it. */
export function PutRight({ run, result }: PutRightProps) {
  const last = run.certificates.at(-1);
  if (!last?.withdrawn) return null;
  return <Compared run={run} result={result} last={last} why={last.withdrawn} />;
}

interface ComparedProps extends PutRightProps {
  readonly last: IssuedCertificate;
  readonly why: NonNullable<IssuedCertificate['withdrawn']>;
}

function Compared({ run, result, last: { certificate }, why }: ComparedProps) {
  const { laboratory } = useSession();
  const nameOf = usePersonName();
  const { evaluation, rounded } = result;
  const moved = evaluation.value - certificate.unrounded.molarity;
  const percent = (100 * moved) / certificate.unrounded.molarity;
  const ofU = Math.abs(moved) / Number(certificate.expandedUncertainty);
  return (
    <section
      aria-label="Put right"
      className="mb-4 border-l-4 border-blush bg-blush-wash px-3 py-2"
    >
      <h2 className="font-bold">Certificate {certificate.number} was withdrawn</h2>
      <p>
        {endOfSentence(why.reason)}{' '}
        <span className="text-ink-soft">
          ({nameOf(why.by)}, {instantText(why.at, laboratory.timeZone, true)})
        </span>
      </p>
      <div className="my-2 max-w-xl">
        <Table
          caption="Before and now"
          heads={['', 'c / (mol/L)', 'U / (mol/L)', 'k']}
          rows={[
            {
              key: 'before',
              cells: [
                'certified',
                figureText(certificate.molarity),
                figureText(certificate.expandedUncertainty),
                figureText(certificate.coverageFactor),
              ],
            },
            {
              key: 'now',
              cells: [
                <b key="n">now</b>,
                figureText(rounded.value),
                figureText(rounded.uncertainty),
                figureText(roundHalfEven(evaluation.coverageFactor, 2)),
              ],
            },
          ]}
        />
      </div>
      <p>{movedText(moved, percent, ofU)}</p>
      <p className="mt-1 flex flex-wrap gap-x-5">
        <ButtonLink look="link" to={`/runs/${run.id}`}>
          Put it right at the bench
        </ButtonLink>
        <ButtonLink look="link" to={certificateLink('', run.id, certificate.number)}>
          Certificate {certificate.number}
        </ButtonLink>
      </p>
      <RestedOnIt bottleId={standardizationOf(run).setUp.bottle.id} runId={run.id} />
    </section>
  );
}

function movedText(moved: number, percent: number, ofU: number): string {
  if (moved === 0) return 'No entry has been put right yet: the value is what it was.';
  const size = `${signedText(percent, 2)} %`;
  const against = `${figureText(roundHalfEven(ofU, 1))} of the U that was certified`;
  return `The value has moved by ${size}, ${against}${ofU > 1 ? ': more than was answered for' : ''}.`;
}

/** Other runs that name the bottle: what they came to may have to be looked at again. */
function RestedOnIt({ bottleId, runId }: { readonly bottleId: string; readonly runId: string }) {
  const runs = useListOn('run', bottleId);
  const others = runs?.records.filter(
    ({ id, bottleId: own, analysisId }) =>
      id !== runId && (own !== bottleId || analysisId !== null),
  );
  if (!runs || !others || others.length === 0) return null;
  return (
    <div className="mt-3">
      <h3 className="font-bold">Titrated with this bottle</h3>
      <RunsTable runs={{ ...runs, records: others }} />
    </div>
  );
}
