import { useState } from 'react';
import { CATALOGUE } from '#core/chemistry';
import { parseDecimal, roundHalfEven, roundSignificant } from '#core/measurement';
import type { PercentMeaning, PlannedQuantity, Route, Wish } from '#core/preparation';
import { plannerShelf, planRoutes } from '#core/preparation';
import { Loading } from '../app/Loading';
import { useRecords } from '../app/records';
import { useSession } from '../app/session';
import { shelfItems } from '../shelf/shelfItems';
import { ButtonLink } from '../ui/Button';
import { Cautions } from '../ui/Cautions';
import { QuantityField, SelectField } from '../ui/fields';
import { Page } from '../ui/Page';
import { capitalized } from '../ui/typeset';

/** Asks what is wanted and offers the ways to it that the shelf allows. */
export function PlanPage() {
  const lots = useRecords('lot');
  const bottles = useRecords('bottle');
  const runs = useRecords('run');
  const equipment = useRecords('equipment');
  const { today } = useSession();
  const [substanceId, setSubstanceId] = useState<string | null>(null);
  const [molarity, setMolarity] = useState('0.1');
  const [volume, setVolume] = useState('1000');
  const [exactness, setExactness] = useState<Wish['exactness'] | null>(null);
  const [meaning, setMeaning] = useState<PercentMeaning | null>(null);
  if (!lots || !bottles || !runs || !equipment) return <Loading />;

  const onShelf = new Set([
    ...lots.map(({ lot }) => lot.substanceId),
    ...bottles.map((bottle) => bottle.substanceId),
  ]);
  const choices = CATALOGUE.substances.filter(({ id }) => onShelf.has(id));
  const substance =
    choices.find(({ id }) => id === substanceId) ??
    choices.find(({ role }) => role === 'titrant-material') ??
    choices[0];
  if (!substance) {
    return (
      <Page title="Plan a solution" tabTitle="Plan">
        <p className="mb-5 text-lg">There is nothing on the shelf to make a solution from.</p>
        <ButtonLink to="/lots" look="primary">
          Add a lot
        </ButtonLink>
      </Page>
    );
  }
  const entry = CATALOGUE.concentrates.find((one) => one.substanceId === substance.id);
  const shelf = plannerShelf(
    substance.id,
    {
      lots,
      bottles: shelfItems(bottles, runs, today).map(({ bottle, leftMl }) => ({
        ...bottle,
        leftMl,
      })),
      equipment,
    },
    entry && meaning ? { entry, meaning } : null,
    today,
  );
  const [molarityMolPerL = 0, volumeMl = 0] = [molarity, volume].map((text) =>
    Number(parseDecimal(text) ?? 0),
  );
  const wanted = exactness ?? (substance.role === 'primary-standard' ? 'exact' : 'approximate');
  const isAsked = molarityMolPerL > 0 && volumeMl > 0;
  const routes = isAsked ? planRoutes({ molarityMolPerL, volumeMl, exactness: wanted }, shelf) : [];
  return (
    <Page
      title="Plan a solution"
      tabTitle="Plan"
      lead="What to make, from what, how exactly, and in which vessel."
      actions={<ButtonLink to="/prepare">Write down what was made</ButtonLink>}
    >
      <div className="grid grid-cols-[300px_minmax(0,1fr)] gap-12">
        <form
          className="flex flex-col gap-4"
          onSubmit={(event) => {
            event.preventDefault();
          }}
        >
          <SelectField
            label="Substance"
            value={substance.id}
            onChange={(event) => {
              setSubstanceId(event.target.value);
              setMeaning(null);
              setExactness(null);
            }}
          >
            {choices.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </SelectField>
          <QuantityField
            label="Molarity"
            unit="mol/L"
            value={molarity}
            onChange={(event) => {
              setMolarity(event.target.value);
            }}
          />
          <QuantityField
            label="Volume"
            unit="mL"
            value={volume}
            onChange={(event) => {
              setVolume(event.target.value);
            }}
          />
          <SelectField
            label="What for"
            value={wanted}
            onChange={(event) => {
              setExactness(event.target.value === 'exact' ? 'exact' : 'approximate');
            }}
          >
            <option value="approximate">a titrant, to be standardized</option>
            <option value="exact">a standard, exact as it is made</option>
          </SelectField>
          {entry && (
            <SelectField
              label={`Concentrate of ${String(entry.massPercent)} %`}
              hint="Read on its label which percentage it states; the two differ by its density."
              value={meaning ?? ''}
              onChange={(event) => {
                const { value } = event.target;
                setMeaning(value === 'by-mass' || value === 'by-volume' ? value : null);
              }}
            >
              <option value="">none at hand</option>
              <option value="by-mass">% by mass (m/m), density {entry.densityGPerMl} g/mL</option>
              <option value="by-volume">grams in 100 mL (m/V)</option>
            </SelectField>
          )}
          <Cautions cautions={substance.cautions} />
        </form>
        <section aria-label="Ways to it" className="flex flex-col gap-5">
          {routes.map((route) => (
            <RouteView
              key={`${route.kind} ${route.sourceId}`}
              route={route}
              isTitrant={substance.role === 'titrant-material'}
              lotId={bottles.find(({ id }) => id === route.sourceId)?.lotId ?? route.sourceId}
            />
          ))}
          {routes.length === 0 && (
            <p className="text-lg">
              {isAsked
                ? 'Nothing on the shelf leads there: a lot, a stronger solution or a concentrate is needed.'
                : 'Write a molarity and a volume above 0.'}
            </p>
          )}
        </section>
      </div>
    </Page>
  );
}

const KINDS: Readonly<Record<Route['kind'], string>> = {
  weigh: 'Weigh',
  concentrate: 'From the concentrate',
  dilute: 'Dilute',
  'dilute-twice': 'Dilute in two steps',
};

/** One way: what to take, in large figures, then what comes out and what speaks against it. */
function RouteView({
  route,
  lotId,
  isTitrant,
}: {
  readonly route: Route;
  readonly lotId: string;
  /** Only titrants go on the shelf so far; a standard solution is made for the day. */
  readonly isTitrant: boolean;
}) {
  const { kind, sourceName, quantities, objections } = route;
  const search = new URLSearchParams({
    lot: lotId,
    molarity: roundSignificant(route.molarityMolPerL, 4),
    volume: roundHalfEven(route.volumeMl, 0),
    note: `${KINDS[kind]}: ${sourceName}`,
  });
  return (
    <article className="border-t-2 border-ink pt-3 first:border-t-0 first:pt-0">
      <div className="flex items-start justify-between gap-6">
        <h2 className="text-lg font-bold">
          {KINDS[kind]}: {sourceName}
        </h2>
        {isTitrant && <ButtonLink to={`/prepare?${search.toString()}`}>Write it down</ButtonLink>}
      </div>
      <ol className="mt-1 flex flex-col gap-1.5">
        {quantities.map((quantity, i) => (
          <li key={i} className="grid grid-cols-[150px_minmax(0,1fr)] gap-x-5">
            <span className="text-right font-mono text-2xl font-semibold whitespace-nowrap">
              {amountText(quantity)}
            </span>
            <span>
              {quantity.what}, with {quantity.with}
              <span className="block text-sm text-ink-soft">
                <b>{capitalized(quantity.exactness)}.</b> {quantity.why}
              </span>
            </span>
          </li>
        ))}
      </ol>
      <p className="mt-2">
        Gives <b>{roundHalfEven(route.volumeMl, 0)} mL</b> of{' '}
        <b className="font-mono">{roundSignificant(route.molarityMolPerL, 4)}</b> mol/L,{' '}
        {route.relativeUncertainty === null
          ? 'nominal: not standardized'
          : `U about ${roundSignificant(200 * route.relativeUncertainty, 2)} % (k = 2), most of it from ${route.dominatedBy ?? ''}`}
        .
      </p>
      {objections.map((objection) => (
        <p key={objection} className="mt-1 border-l-4 border-straw bg-straw-wash px-3 py-1">
          {objection}
        </p>
      ))}
    </article>
  );
}

/** An exact mass to the tenth of a milligram, an approximate one to two figures; volumes as their vessels are marked. */
function amountText({ amount, unit, exactness }: PlannedQuantity): string {
  const digits =
    unit === 'g' && exactness === 'exact'
      ? roundHalfEven(amount, 4)
      : exactness === 'exact'
        ? roundSignificant(amount, 4)
        : roundSignificant(amount, amount >= 100 ? 3 : 2);
  return `${digits} ${unit}`;
}
