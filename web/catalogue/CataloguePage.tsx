import type { ReactNode } from 'react';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import type {
  Analysis,
  EntryState,
  Indicator,
  OwnEntry,
  Preparation,
  Substance,
} from '#core/chemistry';
import {
  CATALOGUE,
  describeDrying,
  findSubstance,
  headOfEntry,
  substanceMass,
} from '#core/chemistry';
import { figureText, roundSignificant } from '#core/measurement';
import { may } from '#core/rights';
import { Loading } from '../app/Loading';
import { NotAllHere } from '../app/NotAllHere';
import { useRecords } from '../app/records';
import { useSession } from '../app/session';
import { Written } from '../app/Written';
import { ButtonLink } from '../ui/Button';
import { TextField } from '../ui/fields';
import { Page } from '../ui/Page';
import { RadioList } from '../ui/RadioList';
import { CellLink, Table } from '../ui/Table';
import { ChemicalFormula } from '../ui/typeset';

type Kind = OwnEntry['kind'];

const KINDS: readonly { readonly id: Kind; readonly name: string }[] = [
  { id: 'substance', name: 'Substances' },
  { id: 'indicator', name: 'Indicators' },
  { id: 'recipe', name: 'Recipes' },
  { id: 'analysis', name: 'Analyses' },
];

const HEADS: Readonly<Record<Kind, readonly string[]>> = {
  substance: ['Name', 'Formula', 'M in g/mol', 'Drying'],
  indicator: ['Name', 'Changes', 'Made up'],
  recipe: ['Name', 'Makes', 'How', 'Steps'],
  analysis: ['Name', 'Finds', 'Titrated with', 'Aims at U'],
};

/** What is known of substances, indicators and recipes: what the laboratory has written itself, then what ships. */
export function CataloguePage() {
  const entries = useRecords('entry');
  const { person } = useSession();
  const [search] = useSearchParams();
  const [kind, setKind] = useState<Kind>(
    () => KINDS.find(({ id }) => id === search.get('of'))?.id ?? 'substance',
  );
  const [wanted, setWanted] = useState('');
  if (!entries) return <Loading />;
  const mayWrite = may(person, 'manage');
  const own = entries.filter((state) => state.entry.kind === kind && fits(state.entry, wanted));
  const shipped = shippedOf(kind).filter((entry) => fits(entry, wanted));
  return (
    <Page
      title="Catalogue"
      tabTitle="Catalogue"
      lead="What is known of substances, indicators, recipes and analyses. Write your own beside those that ship, or copy one and change it."
      actions={
        mayWrite && (
          <ButtonLink look="primary" to={`/catalogue/new?of=${kind}`}>
            {/^[aeiou]/.test(kind) ? 'An' : 'A'} {kind} of your own
          </ButtonLink>
        )
      }
    >
      <NotAllHere kind="entry" what="entries" />
      <div className="mb-6 flex flex-wrap items-end gap-x-8 gap-y-3">
        <RadioList
          legend="Show"
          className="flex flex-wrap gap-x-5"
          items={KINDS}
          chosenId={kind}
          onChoose={setKind}
        />
        <div className="w-72 max-w-full">
          <TextField label="Find" type="search" value={wanted} onText={setWanted} />
        </div>
      </div>
      {own.length > 0 && (
        <section className="mb-8">
          <h2 className="text-lg font-bold">Of this laboratory</h2>
          <Table
            caption="Own entries"
            heads={[...HEADS[kind], 'Written']}
            rows={own.map((state) => ({
              key: state.id,
              cells: [
                <OwnName key="n" state={state} mayWrite={mayWrite} />,
                ...cellsOf(state.entry, state),
                <Written key="w" written={state.written} />,
              ],
            }))}
          />
        </section>
      )}
      <section>
        <h2 className="text-lg font-bold">As they ship</h2>
        {shipped.length === 0 ? (
          <p className="mt-2">Nothing that ships is called so.</p>
        ) : (
          <Table
            caption="Entries that ship"
            heads={[...HEADS[kind], '']}
            rows={shipped.map((entry) => {
              const { id, name } = headOfEntry(entry);
              return {
                key: id,
                cells: [
                  <b key="n" className="wrap-anywhere">
                    {name}
                  </b>,
                  ...cellsOf(entry),
                  mayWrite && (
                    <CellLink
                      key="c"
                      to={`/catalogue/new?of=${kind}&from=${id}`}
                      className="font-semibold lg:whitespace-nowrap"
                      label={`Copy and change ${name}`}
                    >
                      Copy and change
                    </CellLink>
                  ),
                ],
              };
            })}
          />
        )}
      </section>
    </Page>
  );
}

function shippedOf(kind: Kind): readonly OwnEntry[] {
  switch (kind) {
    case 'substance':
      return CATALOGUE.substances.map((substance) => ({ kind, substance, keeping: null }));
    case 'indicator':
      return CATALOGUE.indicators.map((indicator) => ({ kind, indicator }));
    case 'recipe':
      return CATALOGUE.preparations.map((recipe) => ({ kind, recipe }));
    case 'analysis':
      return CATALOGUE.analyses.map((analysis) => ({ kind, analysis }));
  }
}

/** Whether an entry is called so, or a substance written so. */
function fits(entry: OwnEntry, wanted: string): boolean {
  const { name } = headOfEntry(entry);
  const formula = entry.kind === 'substance' ? entry.substance.formula : '';
  return `${name} ${formula}`.toLowerCase().includes(wanted.trim().toLowerCase());
}

/** What of an entry stands in its line, beside the name. */
function cellsOf(entry: OwnEntry, state?: EntryState): readonly ReactNode[] {
  switch (entry.kind) {
    case 'substance':
      return substanceCells(entry.substance);
    case 'indicator':
      return indicatorCells(entry.indicator);
    case 'recipe':
      return recipeCells(entry.recipe, state);
    case 'analysis':
      return analysisCells(entry.analysis, state);
  }
}

function substanceCells({ formula, drying }: Substance): readonly ReactNode[] {
  return [
    <ChemicalFormula key="f" of={formula} />,
    <span key="m" className="font-mono">
      {figureText(roundSignificant(substanceMass(formula).valueGPerMol, 6))}
    </span>,
    <span key="d" className="text-[15px]">
      {drying ? describeDrying(drying) : ''}
    </span>,
  ];
}

function indicatorCells({ changes, colours, preparation }: Indicator): readonly ReactNode[] {
  const lines = changes.map((change, i) => {
    const [before = '', after = ''] = colours[i] ?? [];
    if (change.by === 'reagent') return `${before} to ${after}, by ${change.what}`;
    const [low, high] = change.range;
    const range = low === high ? figureText(low) : `${figureText(low)} to ${figureText(high)}`;
    return `${before} to ${after}, ${change.by === 'pH' ? `pH ${range}` : `${range} V`}`;
  });
  return [
    <span key="c">{lines.join('; ')}</span>,
    <span key="p" className="text-[15px]">
      {preparation}
    </span>,
  ];
}

function recipeCells(recipe: Preparation, state?: EntryState): readonly ReactNode[] {
  const { soluteId, molarityMolPerL, volumeMl, exactness, route, steps } = recipe;
  return [
    <span key="m">
      {findSubstance(soluteId, state?.own)?.name},{' '}
      <span className="whitespace-nowrap">
        {figureText(roundSignificant(molarityMolPerL, 2))} mol/L,
      </span>{' '}
      <span className="whitespace-nowrap">{volumeMl} mL</span>
    </span>,
    <span key="h" className="text-[15px]">
      {exactness}, {HOW[route]}
    </span>,
    <span key="s" className="font-mono">
      {steps.length}
    </span>,
  ];
}

function analysisCells(analysis: Analysis, state?: EntryState): readonly ReactNode[] {
  const { statedAs, units, titrantIds, targetUPercent } = analysis;
  const named = statedAs.map(({ name }) => name).join(', ');
  return [
    <span key="f" className="text-[15px]">
      {named === '' ? 'what it is' : named}; {units.join(', ')}
    </span>,
    <span key="t" className="text-[15px]">
      {titrantIds.map((id) => findSubstance(id, state?.own)?.shortName ?? id).join(', ')}
    </span>,
    <span key="u" className="font-mono">
      {figureText(String(targetUPercent))} %
    </span>,
  ];
}

const HOW: Readonly<Record<Preparation['route'], string>> = {
  weighed: 'weighed',
  'from-solution': 'diluted',
  'volumes-added': 'volumes added',
};

interface OwnNameProps {
  readonly state: EntryState;
  readonly mayWrite: boolean;
}

/** The way to the form, for those who may write entries. */
function OwnName({ state: { id, entry, withdrawn }, mayWrite }: OwnNameProps) {
  const { name } = headOfEntry(entry);
  if (!mayWrite) return <b className="wrap-anywhere">{name}</b>;
  return (
    <CellLink
      to={`/catalogue/${id}`}
      className={`font-semibold wrap-anywhere ${withdrawn ? 'line-through' : ''}`}
    >
      {name}
    </CellLink>
  );
}
