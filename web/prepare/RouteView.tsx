import { useMemo, useState } from 'react';
import { findSubstance } from '#core/chemistry';
import { figureText, parseDecimal, roundHalfEven, roundSignificant } from '#core/measurement';
import type {
  PlannedQuantity,
  PlannerShelf,
  PreparationPlan,
  Route,
  Wish,
} from '#core/preparation';
import {
  durationsOf,
  needsOf,
  recipeOf,
  scheduleBackwards,
  stepsOf,
  tasksOf,
  whatWouldHalve,
} from '#core/preparation';
import { normalitiesOf } from '#core/label';
import { paperUnitsOf } from '#core/laboratory';
import { isPipette } from '#core/metrology';
import { suggestAliquots } from '#core/titration/guidance';
import { useOwn } from '../app/ownEntries';
import { useSession } from '../app/session';
import type { Stock } from '../app/stock';
import { useNow } from '../app/useNow';
import { Sentence } from '../ui/ShortName';
import { Why } from '../ui/Why';
import { capitalized, localText, localTimeAt } from '../ui/typeset';
import { BeginButton } from './BeginButton';
import { ByProcedure } from './ByProcedure';
import { planOfRoute } from './beginning';
import { limitsOf } from './dayLimits';
import type { Wanted } from './PlanForm';

const KINDS: Readonly<Record<Route['kind'], string>> = {
  weigh: 'Weigh',
  concentrate: 'From the concentrate',
  'add-volumes': 'Dilute by cylinder',
  strengthen: 'Strengthen',
  dilute: 'Dilute',
  'dilute-twice': 'Dilute in two steps',
};

interface RouteViewProps {
  readonly route: Route;
  readonly wish: Wish;
  readonly shelf: PlannerShelf;
  readonly wanted: Wanted;
  readonly stock: Stock;
  readonly isFirst: boolean;
}

/** One way: what to take, in large figures, then what comes out, how long it takes, and what speaks against it. */
export function RouteView({ route, wish, shelf, wanted, stock, isFirst }: RouteViewProps) {
  const { laboratory } = useSession();
  const { kind, sourceName, quantities, objections } = route;
  const own = useOwn();
  const molarity = roundSignificant(route.molarityMolPerL, 4);
  const plan = planOfRoute(route, wanted, laboratory.rules, own);
  return (
    <article className="border-t-2 border-ink pt-3 first:border-t-0 first:pt-0">
      <div className="flex items-start justify-between gap-6">
        <h2 className="text-lg font-bold">
          {KINDS[kind]}: <Sentence text={sourceName} />
        </h2>
        {plan && <BeginButton plan={plan} stock={stock} isPrimary={isFirst} />}
      </div>
      <ol className="mt-1 flex flex-col gap-1.5">
        {quantities.map((quantity, i) => (
          <li key={i} className="grid grid-cols-1 gap-x-5 md:grid-cols-[150px_minmax(0,1fr)]">
            <span className="text-right font-mono text-2xl font-semibold whitespace-nowrap">
              {amountText(quantity)}
            </span>
            <span>
              <Sentence text={`${quantity.what}, with ${quantity.with}`} />
              <span className="block text-sm text-ink-soft">
                <b>{capitalized(quantity.exactness)}.</b> {quantity.why}{' '}
                {quantity.how !== undefined && (
                  <Why of={amountText(quantity)} because={[quantity.how]} />
                )}
              </span>
            </span>
          </li>
        ))}
      </ol>
      <p className="mt-2">
        Gives <b>{figureText(roundHalfEven(route.volumeMl, 0))} mL</b> of{' '}
        <b className="font-mono">{figureText(molarity)}</b> mol/L
        {normalitiesOf(wanted.substanceId, molarity, paperUnitsOf(laboratory.rules)).map(
          ({ text, perMole }) => ` = ${text} (${String(perMole)} to the mole)`,
        )}
        , {outcome(route, wanted)}. {plan && <Cost plan={plan} stock={stock} />}{' '}
        {plan && <Time plan={plan} stock={stock} />} {plan && <Recipe plan={plan} />}
      </p>
      <Aliquots route={route} wanted={wanted} stock={stock} />
      {route.relativeUncertainty !== null && <Halve wish={wish} route={route} shelf={shelf} />}
      {plan && <ByProcedure plan={plan} />}
      {objections.map((objection) => (
        <p key={objection} className="mt-1 border-l-4 border-straw bg-straw-wash px-3 py-1">
          <Sentence text={capitalized(objection)} />
        </p>
      ))}
    </article>
  );
}

/** How well the molarity is known, or the factor that goes with a sample. */
function outcome({ relativeUncertainty, dominatedBy, molarityMolPerL }: Route, wanted: Wanted) {
  if (wanted.purpose === 'sample') {
    const factor = Number(parseDecimal(wanted.sampleMolarity) ?? 0) / molarityMolPerL;
    return `if it is as strong as written: diluted ${figureText(roundSignificant(factor, 4))} times, a factor that its bottle carries`;
  }
  return relativeUncertainty === null
    ? 'nominal: not standardized'
    : `U about ${figureText(roundSignificant(200 * relativeUncertainty, 2))} % (k = 2), most of it from ${dominatedBy ?? ''}`;
}

/** Which recipe its steps are taken from, where there is one of its own. */
function Recipe({ plan }: { readonly plan: PreparationPlan }) {
  const recipe = recipeOf(plan);
  return recipe && <>Its steps: {recipe.name}.</>;
}

/** What is left afterwards of what it is made from. */
function Cost({ plan, stock }: { readonly plan: PreparationPlan; readonly stock: Stock }) {
  const leavings = needsOf(plan.source, stock.equipment).flatMap(({ id, amount, unit }) => {
    const left = stock.left.get(id);
    if (left === undefined || left < amount) return [];
    const lot = stock.lots.find((one) => one.id === id)?.lot.lotNumber;
    const code = stock.bottles.find((one) => one.id === id)?.code;
    const name = lot === undefined ? `bottle ${code ?? ''}` : `lot ${lot}`;
    return [`It leaves ${figureText(roundSignificant(left - amount, 3))} ${unit} of ${name}.`];
  });
  return leavings.join(' ');
}

/** How long it takes, and when to begin for what is needed by a time. */
function Time({ plan, stock }: { readonly plan: PreparationPlan; readonly stock: Stock }) {
  const { laboratory } = useSession();
  const now = localTimeAt(useNow(60_000), laboratory.timeZone);
  const tasks = tasksOf(stepsOf(plan), plan.purpose === 'titrant', laboratory.settings);
  const { hands, total } = durationsOf(tasks);
  const lasts = `It takes about ${durationText(total)}, ${durationText(hands)} of it at work${plan.purpose === 'titrant' ? ', with its titration' : ''}.`;
  if (plan.neededBy === null) return <>{lasts}</>;
  const job = { id: 'plan', name: '', tasks, due: plan.neededBy };
  const begins =
    scheduleBackwards([job], limitsOf(laboratory.settings, stock.equipment))[0]?.begins ??
    plan.neededBy;
  return begins < now ? (
    <>
      {lasts}{' '}
      <b className="text-blush">Too late for then: it should have begun {localText(begins)}.</b>
    </>
  ) : (
    <>
      {lasts} <b>Begin by {localText(begins)}.</b>
    </>
  );
}

/** Minutes as people say them. */
function durationText(minutes: number): string {
  if (minutes < 60) return `${String(minutes)} min`;
  const hours = Math.floor(minutes / 60);
  if (hours >= 48) return `${String(Math.round(hours / 24))} days`;
  const rest = minutes % 60;
  return rest === 0 ? `${String(hours)} h` : `${String(hours)} h ${String(rest)} min`;
}

/** Which aliquots of a standard solution will titrate well. */
function Aliquots({
  route,
  wanted,
  stock,
}: {
  readonly route: Route;
  readonly wanted: Wanted;
  readonly stock: Stock;
}) {
  if (wanted.purpose !== 'standard') return null;
  const items = stock.equipment.map(({ equipment }) => equipment);
  const pipettes = items.filter(isPipette).map(({ volumeMl }) => Number(volumeMl));
  const burette = items.find((item) => item.type === 'burette');
  if (burette?.type !== 'burette') return null;
  const found = suggestAliquots(
    wanted.substanceId,
    route.molarityMolPerL,
    pipettes,
    Number(burette.capacityMl),
  );
  if (found.length === 0) return null;
  return (
    <p className="mt-1 text-ink-soft">
      <Sentence
        text={found
          .map(({ method, aliquotMl, titreMl }) => {
            const titrant = findSubstance(method.titrantIds[0] ?? '')?.shortName ?? 'titrant';
            return `Aliquots of ${String(aliquotMl)} mL will take about ${figureText(roundHalfEven(titreMl, 1))} mL of ${figureText(roundSignificant(method.nominalMolarityMolPerL, 2))} mol/L ${titrant}.`;
          })
          .join(' ')}
      />
    </p>
  );
}

function Halve({
  wish,
  route,
  shelf,
}: {
  readonly wish: Wish;
  readonly route: Route;
  readonly shelf: PlannerShelf;
}) {
  const [isAsked, setAsked] = useState(false);
  const answer = useMemo(
    () => (isAsked ? whatWouldHalve(wish, route, shelf) : null),
    [isAsked, wish, route, shelf],
  );
  return answer === null ? (
    <button
      type="button"
      className="min-h-9 text-violet underline underline-offset-4"
      onClick={() => {
        setAsked(true);
      }}
    >
      What would halve U?
    </button>
  ) : (
    <p className="mt-1 border-l-4 border-violet pl-3">
      <Sentence text={answer} />
    </p>
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
  return `${figureText(digits)} ${unit}`;
}
