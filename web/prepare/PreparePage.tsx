import { useState } from 'react';
import { newId } from '#contract';
import type { Catalogue, Substance } from '#core/chemistry';
import { findIndicator, findSubstance } from '#core/chemistry';
import { hazardsOfLot } from '#core/label';
import { parseDecimal } from '#core/measurement';
import type { PlannerShelf, Wish } from '#core/preparation';
import { dissolvingOf, plannerShelf, planRoutes } from '#core/preparation';
import { titrantNeed } from '#core/titration/guidance';
import { Loading } from '../app/Loading';
import { useCatalogue, useOwn } from '../app/ownEntries';
import { useSession } from '../app/session';
import type { Stock } from '../app/stock';
import { useStock } from '../app/stock';
import { ButtonLink } from '../ui/Button';
import { Cautions } from '../ui/Cautions';
import { HazardMarks } from '../ui/HazardMarks';
import { Page } from '../ui/Page';
import { IndicatorRecipe } from './IndicatorRecipe';
import { OnTheWay } from './OnTheWay';
import type { Wanted } from './PlanForm';
import { PlanForm } from './PlanForm';
import { RouteView } from './RouteView';

/** What is on the way, and what can be made: asks what is wanted and offers the ways to it that the shelf allows. */
export function PreparePage() {
  const stock = useStock();
  if (!stock) return <Loading />;
  return (
    <Page
      title="Prepare"
      tabTitle="Prepare"
      lead="What to make, from what, how exactly, and in which vessel."
      actions={
        <>
          <ButtonLink to="/prepare/day">The day&rsquo;s work</ButtonLink>
          <ButtonLink to="/prepare/write-down">Write down what was made</ButtonLink>
        </>
      }
    >
      <OnTheWay />
      {stock.lots.length === 0 ? (
        <section>
          <p className="mb-5 text-lg">There is nothing on the shelf to make a solution from.</p>
          <ButtonLink to="/lots" look="primary">
            Add a lot
          </ButtonLink>
        </section>
      ) : (
        <Planner stock={stock} />
      )}
    </Page>
  );
}

/** How much is made at a time, mL: bottles of titrant, flasks of what is exact. */
const USUAL_VOLUME_ML: Readonly<Record<Wanted['purpose'], string>> = {
  titrant: '1000',
  standard: '250',
  auxiliary: '500',
  sample: '100',
};

/** The substances that a purpose offers; those on the shelf, all for a sample. */
function choicesFor(
  purpose: Wanted['purpose'],
  { lots, bottles }: Stock,
  { substances }: Catalogue,
): Catalogue['substances'] {
  if (purpose === 'sample') return substances;
  const onShelf = new Set([
    ...lots.map(({ lot }) => lot.substanceId),
    ...bottles.map((bottle) => bottle.substanceId),
  ]);
  return substances.filter(({ id }) => onShelf.has(id));
}

function firstChoice(purpose: Wanted['purpose'], choices: Catalogue['substances']): string {
  const role = purpose === 'standard' ? 'primary-standard' : 'titrant-material';
  return (choices.find((one) => one.role === role) ?? choices[0])?.id ?? '';
}

function suits(purpose: Wanted['purpose'], role: Substance['role'] | undefined): boolean {
  const isStandard = role === 'primary-standard';
  if (purpose === 'standard') return isStandard;
  return purpose !== 'titrant' || !isStandard;
}

/** Thermometers that are in use. */
function thermometersOf(equipment: Stock['equipment']) {
  return equipment.flatMap(({ id, withdrawn, equipment: { type, name } }) =>
    type === 'thermometer' && withdrawn === null ? [{ id, name }] : [],
  );
}

function Planner({ stock }: { readonly stock: Stock }) {
  const { laboratory } = useSession();
  const own = useOwn();
  const catalogue = useCatalogue();
  const thermometers = thermometersOf(stock.equipment);
  const [wanted, setWanted] = useState<Wanted>(() => ({
    purpose: 'titrant',
    substanceId: firstChoice('titrant', choicesFor('titrant', stock, catalogue)),
    recipeId: null,
    molarity: '0.1',
    volume: USUAL_VOLUME_ML.titrant,
    targetU: '',
    neededBy: '',
    sampleName: '',
    sampleMolarity: '1',
    thermometerId: thermometers[0]?.id ?? null,
  }));
  const choices = choicesFor(wanted.purpose, stock, catalogue);
  const change = (changes: Partial<Wanted>): void => {
    const next = { ...wanted, ...changes };
    const offered = choicesFor(next.purpose, stock, catalogue);
    const isOffered =
      offered.some(({ id }) => id === next.substanceId) ||
      (next.purpose === 'auxiliary' && findIndicator(next.substanceId, own) !== undefined);
    // Who turns to a standard seldom wants it of the titrant material chosen before, nor the other way round.
    const isMeant =
      !('purpose' in changes) || suits(next.purpose, findSubstance(next.substanceId, own)?.role);
    setWanted({
      ...next,
      substanceId: isOffered && isMeant ? next.substanceId : firstChoice(next.purpose, offered),
      recipeId: 'substanceId' in changes || 'purpose' in changes ? null : next.recipeId,
      volume: 'purpose' in changes ? USUAL_VOLUME_ML[next.purpose] : next.volume,
    });
  };
  const burette = stock.equipment.find(({ equipment }) => equipment.type === 'burette')?.equipment;
  const seriesMl =
    burette?.type === 'burette' ? titrantNeed(burette, laboratory.rules).titrantTotalMl : null;
  const indicator = findIndicator(wanted.substanceId, own);
  const substance = findSubstance(wanted.substanceId, own);
  const lot = stock.lots.find((one) => one.lot.substanceId === wanted.substanceId);
  return (
    <div className="grid grid-cols-1 gap-12 lg:grid-cols-[300px_minmax(0,1fr)]">
      <div className="flex flex-col gap-4">
        <PlanForm
          wanted={wanted}
          onChange={change}
          choices={choices}
          thermometers={thermometers}
          seriesMl={seriesMl}
        />
        <Cautions cautions={substance?.cautions ?? []} />
        {lot && (
          <HazardMarks
            of={`${substance?.shortName ?? ''}, as received`}
            hazards={hazardsOfLot(lot)}
          />
        )}
      </div>
      <section aria-label="Ways to it" className="flex flex-col gap-5">
        {indicator ? (
          <IndicatorRecipe indicator={indicator} own={own} volumeMl={parseDecimal(wanted.volume)} />
        ) : (
          <Ways wanted={wanted} stock={stock} />
        )}
      </section>
    </div>
  );
}

function Ways({ wanted, stock }: { readonly wanted: Wanted; readonly stock: Stock }) {
  const { today, laboratory } = useSession();
  const own = useOwn();
  const number = (text: string): number => Number(parseDecimal(text) ?? 0);
  const molarityMolPerL = number(wanted.molarity);
  const volumeMl = number(wanted.volume);
  if (molarityMolPerL <= 0 || volumeMl <= 0) {
    return <p className="text-lg">Write a molarity and a volume above 0.</p>;
  }
  const ofShelf = plannerShelf(wanted.substanceId, stock, (id) => stock.left.get(id), today);
  const shelf = wanted.purpose === 'sample' ? withSample(ofShelf, wanted) : ofShelf;
  const isExact = wanted.purpose === 'standard' || wanted.purpose === 'sample';
  const targetPercent = number(wanted.targetU);
  const wish: Wish = {
    molarityMolPerL,
    volumeMl,
    exactness: isExact ? 'exact' : 'approximate',
    ...dissolvingOf(wanted.substanceId, own),
    isStandardizedLater: wanted.purpose !== 'auxiliary',
    madeUpIn: wanted.purpose === 'titrant' ? laboratory.rules.titrantsMadeUpIn : 'cylinder',
    ...(targetPercent > 0 ? { targetRelativeU: targetPercent / 100 } : {}),
  };
  const routes = planRoutes(wish, shelf);
  if (routes.length === 0) {
    return (
      <p className="text-lg">
        {wanted.purpose === 'sample'
          ? 'No pipette and flask here give this dilution: try another volume.'
          : 'Nothing on the shelf makes this solution: a lot, a stronger solution or a concentrate is needed.'}
      </p>
    );
  }
  return routes.map((route, i) => (
    <RouteView
      key={`${route.kind} ${route.sourceId}`}
      route={route}
      wish={wish}
      shelf={shelf}
      wanted={wanted}
      stock={stock}
      isFirst={i === 0}
    />
  ));
}

/** The sample is no record: it has an id while this page is open, and names none. */
const SAMPLE_ID = newId();

/** Only the sample itself, to be diluted with the laboratory's own glassware. */
function withSample(shelf: PlannerShelf, { sampleName, sampleMolarity }: Wanted): PlannerShelf {
  const molarityMolPerL = Number(parseDecimal(sampleMolarity) ?? 0);
  const name = sampleName.trim() === '' ? 'the sample' : sampleName.trim();
  return {
    ...shelf,
    solids: [],
    concentrates: [],
    solutions: [
      {
        id: SAMPLE_ID,
        name,
        molarityMolPerL,
        relativeUncertainty: null,
        leftMl: Number.POSITIVE_INFINITY,
        isSample: true,
      },
    ],
  };
}
