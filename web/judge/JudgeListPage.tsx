import { useState } from 'react';
import type { RunSummary } from '#core/ledger';
import { Loading } from '../app/Loading';
import { useRunList } from '../app/lists';
import { ButtonLink } from '../ui/Button';
import { ListSearch } from '../ui/ListSearch';
import { Page } from '../ui/Page';
import { RunsTable } from '../app/RunsTable';

/** Every run with what it came to, newest first. */
export function JudgeListPage() {
  const [search, setSearch] = useState('');
  const [standing, setStanding] = useState<RunSummary['status'] | ''>('');
  const runs = useRunList(search, standing);
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
          <RunsTable runs={runs} />
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
