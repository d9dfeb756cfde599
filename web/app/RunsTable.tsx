import type { RunSummary } from '#core/ledger';
import { figureText, roundHalfEven, roundSignificant } from '#core/measurement';
import type { PagedList } from './lists';
import { PagedTable } from './PagedTable';
import { usePersonName } from './records';
import { useSession } from './session';
import { CellLink } from '../ui/Table';
import { instantText, Molarity } from '../ui/typeset';

interface RunsTableProps {
  readonly runs: PagedList<'run'>;
  /** Whether all are of one bottle, which then need not be named. */
  readonly isOfOneBottle?: boolean;
}

/** Runs with who titrated when, and what they came to. */
export function RunsTable({ runs, isOfOneBottle = false }: RunsTableProps) {
  const { laboratory } = useSession();
  const nameOf = usePersonName();
  const heads = ['Begun', 'Analyst', 'Titrations', 'Result', ''];
  return (
    <PagedTable
      list={runs}
      one="run"
      many="runs"
      caption="Runs"
      heads={isOfOneBottle ? heads : ['Bottle', ...heads]}
      rows={runs.records.map((run) => ({
        key: run.id,
        cells: [
          ...(isOfOneBottle
            ? []
            : [
                <b key="b" className="font-mono">
                  {runs.names[run.bottleId]}
                </b>,
              ]),
          instantText(run.startedAt, laboratory.timeZone),
          nameOf(run.startedBy),
          run.titrationsMade,
          <ResultOf key="m" run={run} />,
          <CellLink key="l" to={`/runs/${run.id}/judge`}>
            {LINKS[run.status](run)}
          </CellLink>,
        ],
      }))}
    />
  );
}

const LINKS: Readonly<Record<RunSummary['status'], (run: RunSummary) => string>> = {
  certified: ({ certificate }) => `certificate ${certificate?.number ?? ''}`,
  reported: ({ report }) => `report ${report?.number ?? ''}`,
  abandoned: () => 'abandoned',
  open: ({ isReturned, signed }) => {
    if (isReturned) return 'given back: answer it';
    return signed.length > 0 ? `${signed.join(', ')}: sign it` : 'judge it';
  },
};

function ResultOf({
  run: { certificate, molarity, samples, status },
}: {
  readonly run: RunSummary;
}) {
  if (samples.length > 0) return <Contents of={samples} isOpen={status === 'open'} />;
  if (certificate) {
    return <Molarity value={certificate.molarity} uncertainty={certificate.expandedUncertainty} />;
  }
  return molarity === null ? 'none yet' : `${figureText(roundHalfEven(molarity, 4))} mol/L so far`;
}

/** What has been found of each sample of a run. */
function Contents({
  of: samples,
  isOpen,
}: {
  readonly of: RunSummary['samples'];
  readonly isOpen: boolean;
}) {
  return (
    <ul>
      {samples.map(({ id, code, content, unit }) => (
        <li key={id}>
          <span className="font-mono">{code}</span>{' '}
          {content === null
            ? isOpen
              ? 'to be titrated'
              : 'not found'
            : `${figureText(roundSignificant(content, 4))} ${unit}${isOpen ? ' so far' : ''}`}
        </li>
      ))}
    </ul>
  );
}
