import { useState } from 'react';
import type { RunSummary } from '#core/ledger';
import { roundHalfEven } from '#core/measurement';
import { Loading } from '../app/Loading';
import { useRunList } from '../app/lists';
import { PagedTable } from '../app/PagedTable';
import { usePersonName } from '../app/records';
import { useSession } from '../app/session';
import { ButtonLink } from '../ui/Button';
import { ListSearch } from '../ui/ListSearch';
import { Page } from '../ui/Page';
import { CellLink } from '../ui/Table';
import { instantText, Molarity } from '../ui/typeset';

/** Every run with what it came to, newest first. */
export function JudgeListPage() {
  const { laboratory } = useSession();
  const [search, setSearch] = useState('');
  const [standing, setStanding] = useState<RunSummary['status'] | ''>('');
  const runs = useRunList(search, standing);
  const nameOf = usePersonName();
  if (!runs) return <Loading />;
  return (
    <Page title="Judge" tabTitle="Judge" lead="Every series of titrations and what it came to">
      {runs.records.length === 0 && search === '' && standing === '' ? (
        <div>
          <p className="mb-5 text-lg text-ink-soft">Nothing has been titrated yet.</p>
          <ButtonLink to="/titrate" look="primary">
            To the bench
          </ButtonLink>
        </div>
      ) : (
        <>
          <div className="mb-3 flex flex-wrap items-center gap-3">
            <ListSearch
              label="Find a run"
              by="bottle, solution, method, certificate"
              onSearch={setSearch}
            />
            <select
              aria-label="Which runs"
              className="min-h-12 rounded-md border border-rule-strong bg-sheet px-3 text-base"
              value={standing}
              onChange={({ target }) => {
                setStanding(target.value as RunSummary['status'] | '');
              }}
            >
              {STANDINGS.map(([value, name]) => (
                <option key={value} value={value}>
                  {name}
                </option>
              ))}
            </select>
          </div>
          <PagedTable
            list={runs}
            one="run"
            many="runs"
            caption="Runs"
            heads={['Bottle', 'Begun', 'Analyst', 'Titrations', 'Result', '']}
            rows={runs.records.map((run) => ({
              key: run.id,
              cells: [
                <b key="b" className="font-mono">
                  {runs.names[run.bottleId]}
                </b>,
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
        </>
      )}
    </Page>
  );
}

const STANDINGS: readonly (readonly [RunSummary['status'] | '', string])[] = [
  ['', 'every run'],
  ['open', 'to be judged'],
  ['certified', 'certified'],
  ['abandoned', 'abandoned'],
];

const LINKS: Readonly<Record<RunSummary['status'], (run: RunSummary) => string>> = {
  certified: ({ certificate }) => `certificate ${certificate?.number ?? ''}`,
  abandoned: () => 'abandoned',
  open: () => 'judge it',
};

function ResultOf({ run: { certificate, molarity } }: { readonly run: RunSummary }) {
  if (certificate) {
    return <Molarity value={certificate.molarity} uncertainty={certificate.expandedUncertainty} />;
  }
  return molarity === null ? 'none yet' : `${roundHalfEven(molarity, 4)} mol/L so far`;
}
