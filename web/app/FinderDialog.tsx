import { figureText } from '#core/measurement';
import type { RefObject } from 'react';
import { useDeferredValue, useEffect, useRef, useState } from 'react';
import {
  Autocomplete,
  Header,
  Input,
  Menu,
  MenuItem,
  MenuSection,
  SearchField,
} from 'react-aria-components';
import { useNavigate } from 'react-router';
import { findContent, headOfEntry } from '#core/chemistry';
import { GLOSSARY } from '#core/wording';
import { Dialog } from '../ui/Dialog';
import { useRested } from '../ui/useRested';
import { useRecordList, useRunList } from './lists';
import { KEPT_BELOW, STAGES } from './stages';

/** Somewhere to go. */
interface Found {
  readonly to: string;
  readonly name: string;
  /** What it is, in a few words. */
  readonly words: string;
}

/** Pages and what is begun on them, by what one would look for. */
const PAGES: readonly Found[] = [
  ...STAGES.map(({ name, to }) => ({ name, to, words: 'stage of the work' })),
  { name: 'Standardize a titrant', to: '/titrate/set-up', words: 'begin a run' },
  { name: 'The day’s work', to: '/prepare/day', words: 'what is made when' },
  { name: 'Write down a solution', to: '/prepare/write-down', words: 'made already, or bought' },
  ...KEPT_BELOW.map(({ name, to }) => ({ name, to, words: 'kept by the laboratory' })),
  { name: 'Account', to: '/account', words: 'your password, and how the pages look' },
  { name: 'Words', to: '/words', words: 'what is meant by titre, blank, concordant ...' },
];

/** Words of the craft, with what they mean. */
const WORDS: readonly Found[] = Object.entries(GLOSSARY).map(([key, { word, meaning }]) => ({
  name: word,
  to: `/words#${key}`,
  words: meaning,
}));

/** How many of a kind are shown; more words find fewer. */
const AT_MOST = 5;

interface FinderDialogProps {
  /** It is left, or leads somewhere. */
  readonly onGone: () => void;
}

/** Asks for a name and leads to what is called so. */
export function FinderDialog({ onGone }: FinderDialogProps) {
  return (
    <Dialog
      title="Find"
      description="A bottle by its code, a lot, an instrument, a method, a certificate, a page."
      onClose={onGone}
    >
      <Search onGone={onGone} />
    </Dialog>
  );
}

function Search({ onGone }: FinderDialogProps) {
  const [text, setText] = useState('');
  const search = useRested(text.trim());
  const firstRef = useRef<Found | null>(null);
  const navigate = useNavigate();
  const go = (to: string): void => {
    onGone();
    void navigate(to);
  };
  return (
    <Autocomplete inputValue={text} onInputChange={setText}>
      <SearchField
        aria-label="Find"
        onSubmit={() => {
          // What is shown may still be that of an earlier word.
          if (firstRef.current && text.trim() === search) go(firstRef.current.to);
        }}
      >
        <Input className="min-h-12 w-full rounded-md border border-rule-strong bg-sheet px-3 text-lg text-ink [&::-webkit-search-cancel-button]:hidden" />
      </SearchField>
      {search === '' ? (
        <Listed groups={[{ title: 'Pages', found: PAGES }]} firstRef={firstRef} onGo={go} />
      ) : (
        <FoundBy search={search} firstRef={firstRef} onGo={go} />
      )}
    </Autocomplete>
  );
}

function FoundBy({ search, ...rest }: Omit<ListedProps, 'groups'> & { readonly search: string }) {
  return <Listed groups={useFound(search)} {...rest} />;
}

interface ListedProps {
  readonly groups: readonly Group[];
  /** Takes the first of them, to which Enter leads. */
  readonly firstRef: RefObject<Found | null>;
  readonly onGo: (to: string) => void;
}

/** Before the first list is drawn. */
const NONE_YET: readonly Group[] = [];

function Listed({ groups: found, firstRef, onGo }: ListedProps) {
  // A letter that is typed is shown before what it finds.
  const groups = useDeferredValue(found, NONE_YET);
  useEffect(() => {
    // What is still shown of an earlier word leads nowhere.
    const shown = groups === found ? groups : NONE_YET;
    firstRef.current = shown.flatMap((group) => group.found)[0] ?? null;
  }, [firstRef, found, groups]);
  if (groups !== NONE_YET && groups.every((group) => group.found.length === 0)) {
    return <p className="mt-4">Nothing here is called so.</p>;
  }
  return (
    <Menu aria-label="What was found" className="mt-3 outline-none">
      {groups.map(({ title, found }) =>
        found.length === 0 ? null : (
          <MenuSection key={title}>
            <Header className="px-2 pt-2 text-sm font-semibold text-ink-soft">{title}</Header>
            {found.map(({ to, name, words }) => (
              <MenuItem
                key={`${to} ${name}`}
                id={`${to} ${name}`}
                textValue={name}
                onAction={() => {
                  onGo(to);
                }}
                className="flex min-h-12 cursor-pointer flex-wrap items-center gap-x-3 rounded px-2 outline-none data-focused:bg-violet data-focused:text-on-violet"
              >
                <b>{name}</b>
                <span className="text-[15px]">{words}</span>
              </MenuItem>
            ))}
          </MenuSection>
        ),
      )}
    </Menu>
  );
}

interface Group {
  readonly title: string;
  readonly found: readonly Found[];
}

/** What has all the words, kind by kind. */
function useFound(search: string): readonly Group[] {
  const list = { order: 'newest', search } as const;
  const bottles = useRecordList('bottle', list);
  const lots = useRecordList('lot', list);
  const samples = useRecordList('sample', list);
  const equipment = useRecordList('equipment', list);
  const methods = useRecordList('method', list);
  const entries = useRecordList('entry', list);
  const people = useRecordList('person', list);
  const runs = useRunList(search, '');
  const isCalledSo = ({ name }: Found): boolean =>
    name.toLowerCase().includes(search.toLowerCase());
  const group = <T,>(
    title: string,
    records: readonly T[] | undefined,
    foundOf: (record: T) => Found,
  ): Group => ({ title, found: (records ?? []).slice(0, AT_MOST).map(foundOf) });
  return [
    group('Bottles', bottles?.records, ({ id, code, substanceId, own, nominalMolarity }) => ({
      to: `/bottles/${id}`,
      name: code,
      words: [
        findContent(substanceId, own)?.name ?? substanceId,
        ...(nominalMolarity === null ? [] : [`${figureText(nominalMolarity)} mol/L`]),
      ].join(', '),
    })),
    group('Samples', samples?.records, ({ id, sample }) => ({
      to: `/samples/${id}`,
      name: sample.code,
      words: [sample.description, sample.source].filter((one) => one !== '').join(', '),
    })),
    group('Lots', lots?.records, ({ id, lot }) => ({
      to: `/lots/${id}`,
      name: lot.lotNumber,
      words: findContent(lot.substanceId, lot.own)?.name ?? lot.substanceId,
    })),
    group('Runs', runs?.records, ({ id, status, bottleId, certificate, method }) => ({
      to: `/runs/${id}${status === 'open' ? '' : '/judge'}`,
      name: certificate?.number ?? `run on bottle ${runs?.names[bottleId] ?? ''}`,
      words: method,
    })),
    group('Equipment', equipment?.records, ({ id, equipment: { name, type } }) => ({
      to: `/equipment/${id}`,
      name,
      words: type,
    })),
    group('Methods', methods?.records, ({ id, method: { name } }) => ({
      to: `/methods/${id}`,
      name,
      words: 'of this laboratory',
    })),
    group('Catalogue', entries?.records, ({ id, entry }) => ({
      to: `/catalogue/${id}`,
      name: headOfEntry(entry).name,
      words: entry.kind,
    })),
    group('People', people?.records, ({ name }) => ({ to: '/people', name, words: 'person' })),
    { title: 'Pages', found: PAGES.filter(isCalledSo) },
    { title: 'Words', found: WORDS.filter(isCalledSo).slice(0, AT_MOST) },
  ];
}
