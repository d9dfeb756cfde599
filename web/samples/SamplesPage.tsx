import { useState } from 'react';
import type { PlainDate } from '#core/grammar';
import type { RunSummary } from '#core/ledger';
import type { SampleState } from '#core/sample';
import { may } from '#core/rights';
import { Loading } from '../app/Loading';
import { useRecordList } from '../app/lists';
import { useRuns } from '../app/records';
import { PagedTable } from '../app/PagedTable';
import { useSession } from '../app/session';
import { Button } from '../ui/Button';
import { ListSearch } from '../ui/ListSearch';
import { Page } from '../ui/Page';
import { CellLink } from '../ui/Table';
import { dateText } from '../ui/typeset';
import { SampleForm } from './SampleForm';
import { analysisName, standingText } from './wording';

/** What was brought to be measured. */
export function SamplesPage() {
  const { person, today } = useSession();
  const [search, setSearch] = useState('');
  const list = useRecordList('sample', { order: 'newest', search });
  const openRuns = useRuns() ?? [];
  const [isAdding, setAdding] = useState(false);
  if (!list) return <Loading />;
  const isEmpty = list.records.length === 0 && search === '';
  return (
    <Page
      title="Samples"
      tabTitle="Samples"
      lead="What was brought to be measured with the titrants"
      actions={
        may(person, 'enter') &&
        !isAdding && (
          <Button
            look="primary"
            onClick={() => {
              setAdding(true);
            }}
          >
            Receive a sample
          </Button>
        )
      }
    >
      {isAdding && (
        <SampleForm
          onDone={() => {
            setAdding(false);
          }}
        />
      )}
      {isEmpty ? (
        !isAdding && <p className="text-lg text-ink-soft">No sample has been received yet.</p>
      ) : (
        <>
          <div className="mb-3">
            <ListSearch
              label="Find a sample"
              by="code, description, customer, analysis"
              onSearch={setSearch}
            />
          </div>
          <PagedTable
            list={list}
            one="sample"
            many="samples"
            caption="Samples"
            heads={['Sample', 'What', 'From', 'To be found', 'Received', 'Standing']}
            rows={list.records.map((state) => ({
              key: state.id,
              cells: cellsOf(state, today, openRuns),
            }))}
          />
        </>
      )}
    </Page>
  );
}

function cellsOf(state: SampleState, today: PlainDate, openRuns: readonly RunSummary[]) {
  const { id, sample } = state;
  return [
    <CellLink key="c" to={`/samples/${id}`} className="font-mono font-semibold whitespace-nowrap">
      {sample.code}
    </CellLink>,
    <b key="d">{sample.description}</b>,
    [sample.source, sample.customer].filter((one) => one !== '').join(', '),
    sample.requests.map(({ analysisId }) => analysisName(analysisId, sample.own)).join('; '),
    <span key="r" className="lg:whitespace-nowrap">
      {dateText(sample.receivedOn)}
    </span>,
    standingText(state, today, openRuns),
  ];
}
