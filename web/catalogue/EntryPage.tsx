import { useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import type { EntryState, OwnEntry } from '#core/chemistry';
import { CATALOGUE, headOfEntry } from '#core/chemistry';
import type { RecordVersion } from '#core/record';
import { Loading } from '../app/Loading';
import { useRecords } from '../app/records';
import { HistoryLink } from '../app/HistoryLink';
import { UseSwitch } from '../app/UseSwitch';
import { newRecord } from '../app/useWriting';
import { Page } from '../ui/Page';
import { AnalysisForm, firstAnalysis } from './AnalysisForm';
import { IndicatorForm, NO_INDICATOR } from './IndicatorForm';
import { NO_RECIPE, RecipeForm } from './RecipeForm';
import { SubstanceForm } from './SubstanceForm';
import { NO_SUBSTANCE } from './typedSubstance';

/** Writing an entry of the laboratory's own: a new one, a copy of one that ships, or a new version of one's own. */
export function EntryPage() {
  const { entryId } = useParams();
  const [search] = useSearchParams();
  const own = useRecords('entry');
  const [fresh] = useState(newRecord);
  if (!own) return <Loading />;
  const known = own.find(({ id }) => id === entryId);
  const entry = known?.entry ?? beginning(search.get('of') ?? '', search.get('from'));
  return (
    <Page
      title={known ? `Change “${headOfEntry(known.entry).name}”` : TITLES[entry.kind]}
      tabTitle="Catalogue entry"
      lead={
        known
          ? `Version ${String(known.written.length + 1)}. What was made or titrated with an earlier one keeps it.`
          : 'It passes the same checks as those that ship, which stay as they are.'
      }
    >
      {known && (
        <div className="mb-6">
          <UseSwitch kind="entry" {...known} />
          <HistoryLink of={known.id} />
        </div>
      )}
      <EntryForm entry={entry} record={known ?? fresh} />
    </Page>
  );
}

const TITLES: Readonly<Record<OwnEntry['kind'], string>> = {
  substance: 'A substance of your own',
  indicator: 'An indicator of your own',
  recipe: 'A recipe of your own',
  analysis: 'An analysis of your own',
};

/** What a form begins with: an empty entry, or a copy of one that ships under a name of its own. */
function beginning(kind: string, from: string | null): OwnEntry {
  const copied = <T extends { readonly id: string; readonly name: string }>(
    entries: readonly T[],
  ): T | null => {
    const found = entries.find(({ id }) => id === from);
    return found ? { ...found, name: `${found.name}, ours` } : null;
  };
  switch (kind) {
    case 'indicator': {
      const indicator = copied(CATALOGUE.indicators);
      return indicator ? { kind, indicator } : NO_INDICATOR;
    }
    case 'recipe': {
      const recipe = copied(CATALOGUE.preparations);
      return recipe ? { kind, recipe } : NO_RECIPE;
    }
    case 'analysis': {
      const analysis = copied(CATALOGUE.analyses);
      return analysis ? { kind, analysis } : firstAnalysis();
    }
    default: {
      const substance = copied(CATALOGUE.substances);
      const keeping = CATALOGUE.keeping.find(({ substanceId }) => substanceId === from) ?? null;
      return substance ? { kind: 'substance', substance, keeping } : NO_SUBSTANCE;
    }
  }
}

interface EntryFormProps {
  readonly entry: EntryState['entry'];
  readonly record: RecordVersion;
}

function EntryForm({ entry, record }: EntryFormProps) {
  switch (entry.kind) {
    case 'substance':
      return <SubstanceForm entry={entry} record={record} />;
    case 'indicator':
      return <IndicatorForm entry={entry} record={record} />;
    case 'recipe':
      return <RecipeForm entry={entry} record={record} />;
    case 'analysis':
      return <AnalysisForm entry={entry} record={record} />;
  }
}
