import { useInfiniteQuery } from '@tanstack/react-query';
import { Link, useSearchParams } from 'react-router';
import { isPlainDate } from '#core/grammar';
import type { RecordKind } from '#core/ledger';
import { isSigned, sentenceOf } from '#core/ledger';
import { may } from '#core/rights';
import type { HistoryAnswer, HistoryLine } from '#contract';
import { historyAnswer } from '#contract';
import { ask } from '../app/api';
import { Loading } from '../app/Loading';
import { failsThePage } from '../app/queryClient';
import { usePersonName, useRecords } from '../app/records';
import { useSession } from '../app/session';
import { Button } from '../ui/Button';
import { DateField } from '../ui/DateField';
import { SelectField } from '../ui/fields';
import { ListFoot } from '../ui/ListFoot';
import { Page } from '../ui/Page';
import { capitalized, instantText } from '../ui/typeset';
import { VerifyLog } from './VerifyLog';

/** What a kind of record is called, and where one of them has its page. */
const KINDS: Readonly<Record<RecordKind, { name: string; to: ((id: string) => string) | null }>> = {
  run: { name: 'run', to: (id) => `/runs/${id}/judge` },
  bottle: { name: 'bottle', to: (id) => `/bottles/${id}` },
  sample: { name: 'sample', to: (id) => `/samples/${id}` },
  preparation: { name: 'preparation', to: (id) => `/preparations/${id}` },
  lot: { name: 'lot', to: (id) => `/lots/${id}` },
  equipment: { name: 'equipment', to: (id) => `/equipment/${id}` },
  method: { name: 'method', to: (id) => `/methods/${id}` },
  entry: { name: 'entry of the catalogue', to: (id) => `/catalogue/${id}` },
  person: { name: 'person', to: null },
  laboratory: { name: 'laboratory', to: null },
};

/** By what the history is narrowed, as it stands in the address. */
const FILTERS = ['recordId', 'recordKind', 'by', 'signed', 'from', 'to'] as const;

/** Everything that was entered, the newest first: by whom, into which record, in a sentence. */
export function HistoryPage() {
  const { person } = useSession();
  const [search, setSearch] = useSearchParams();
  const asked = Object.fromEntries(
    FILTERS.flatMap((key) => {
      const value = search.get(key) ?? '';
      return value === '' ? [] : [[key, value]];
    }),
  );
  const set = (key: (typeof FILTERS)[number], value: string): void => {
    const next = new URLSearchParams(search);
    if (value === '') next.delete(key);
    else next.set(key, value);
    setSearch(next, { replace: true });
  };
  return (
    <Page
      title="History"
      tabTitle="History"
      lead="Everything that was entered, the newest first. Nothing here can be changed."
      actions={
        search.get('recordId') !== null && (
          <Button
            onClick={() => {
              set('recordId', '');
            }}
          >
            Of every record
          </Button>
        )
      }
    >
      <Filters of={search} onSet={set} />
      <Lines asked={asked} />
      {may(person, 'verify-log') && <VerifyLog />}
    </Page>
  );
}

interface FiltersProps {
  readonly of: URLSearchParams;
  readonly onSet: (key: (typeof FILTERS)[number], value: string) => void;
}

function Filters({ of, onSet }: FiltersProps) {
  const people = useRecords('person') ?? [];
  const day = (key: 'from' | 'to', label: string) => (
    <DateField
      label={label}
      value={of.get(key) ?? ''}
      onText={(text) => {
        if (text === '' || isPlainDate(text)) onSet(key, text);
      }}
    />
  );
  return (
    <div className="mb-4 grid max-w-5xl grid-cols-1 items-start gap-4 sm:grid-cols-2 lg:grid-cols-5">
      <SelectField
        label="By"
        value={of.get('by') ?? ''}
        options={[['', 'everybody'], ...people.map(({ id, name }) => [id, name] as const)]}
        onText={(id) => {
          onSet('by', id);
        }}
      />
      <SelectField
        label="Of"
        value={of.get('recordKind') ?? ''}
        options={[
          ['', 'every kind'],
          ...Object.entries(KINDS).map(([kind, { name }]) => [kind, name] as const),
        ]}
        onText={(kind) => {
          onSet('recordKind', kind);
        }}
      />
      <SelectField
        label="Which entries"
        value={of.get('signed') ?? ''}
        options={[
          ['', 'all'],
          ['yes', 'signatures'],
        ]}
        onText={(signed) => {
          onSet('signed', signed);
        }}
      />
      {day('from', 'From')}
      {day('to', 'To')}
    </div>
  );
}

function Lines({ asked }: { readonly asked: Readonly<Record<string, string>> }) {
  const { data, fetchNextPage, hasNextPage, isFetchingNextPage } = useInfiniteQuery({
    queryKey: ['history', asked],
    queryFn: ({ pageParam }): Promise<HistoryAnswer> => {
      const after: Readonly<Record<string, string>> = pageParam === '' ? {} : { after: pageParam };
      const query = new URLSearchParams({ ...asked, ...after });
      return ask(historyAnswer, 'GET', `/history?${query.toString()}`);
    },
    initialPageParam: '',
    getNextPageParam: ({ next }) => next ?? undefined,
    throwOnError: failsThePage,
    placeholderData: (before) => before,
  });
  if (!data) return <Loading />;
  const lines = data.pages.flatMap((page) => page.lines);
  if (lines.length === 0) {
    return <p className="text-lg text-ink-soft">Nothing was entered that is asked for here.</p>;
  }
  return (
    <>
      <ol aria-label="Entries" className="max-w-5xl divide-y divide-rule">
        {lines.map((line) => (
          <LineView key={line.fact.id} line={line} />
        ))}
      </ol>
      <ListFoot
        shown={lines.length}
        what="entries"
        more={hasNextPage ? () => void fetchNextPage() : null}
        isReading={isFetchingNextPage}
      />
    </>
  );
}

function LineView({ line: { fact, name, about } }: { readonly line: HistoryLine }) {
  const { laboratory } = useSession();
  const nameOf = usePersonName();
  const kind = KINDS[fact.recordKind as RecordKind];
  const called = [kind.name, name !== '' ? name : about === null ? '' : `on bottle ${about}`]
    .filter((text) => text !== '')
    .join(' ');
  return (
    <li className="grid grid-cols-1 gap-x-4 py-2 md:grid-cols-[11rem_10rem_minmax(0,1fr)]">
      <span className="text-ink-soft">
        {fact.recordedAt === null ? '' : instantText(fact.recordedAt, laboratory.timeZone, true)}
      </span>
      <span>{nameOf(fact.authorId)}</span>
      <span className="wrap-anywhere">
        {kind.to ? (
          <Link to={kind.to(fact.recordId)} className="text-violet underline underline-offset-4">
            {capitalized(called)}
          </Link>
        ) : (
          capitalized(called)
        )}
        : {sentenceOf(fact)}
        {isSigned(fact.kind) && (
          <span className="ml-2 rounded-full bg-leaf-wash px-2.5 py-0.5 text-sm font-semibold whitespace-nowrap text-leaf">
            signed
          </span>
        )}
      </span>
    </li>
  );
}
