import { figureText, roundHalfEven } from '../measurement';
import { requirePositive } from '../problem';
import { addingVolumes, fromConcentrate, strengthening } from './cylinderRoutes';
import { dilutions } from './dilutionRoutes';
import type { PlannerShelf, Route, Wish } from './route';
import { exceededSolubility, percent } from './route';
import { weighing } from './weighRoute';

/** Best routes that are shown. */
const MOST_ROUTES = 8;

/**
 * The routes that a shelf allows to a solution: weigh a solid, take from a concentrate, dilute a stronger solution in one step or
 * two. Amounts, vessels, the molarity that comes out, its uncertainty and what dominates it; the most exact first, the ones that
 * something speaks against last.
 *
 * @throws Unanswerable `non-positive` for a molarity or volume of nothing.
 */
export function planRoutes(wish: Wish, shelf: PlannerShelf): readonly Route[] {
  requirePositive(wish.molarityMolPerL, 'molarity');
  requirePositive(wish.volumeMl, 'volumeMl');
  const routes = [
    ...shelf.solids.map((solid) => weighing(wish, solid, shelf)),
    ...shelf.concentrates.map((one) => fromConcentrate(wish, one, shelf.vessels)),
    ...dilutions(wish, shelf),
    ...(wish.exactness === 'approximate'
      ? [
          ...shelf.solutions.map((solution) => addingVolumes(wish, solution, shelf.vessels)),
          ...strengthening(wish, shelf),
        ]
      : []),
  ];
  return routes
    .filter((route) => route !== null)
    .map((route) => withTarget(wish, withSolubility(wish, route)))
    .toSorted(byMerit)
    .slice(0, MOST_ROUTES);
}

/** Says that no route makes more dissolve than dissolves. */
function withSolubility(wish: Wish, route: Route): Route {
  const most = exceededSolubility(wish);
  if (most === null) return route;
  const objection = `Only about ${String(most)} mol/L of it dissolve at 20 °C.`;
  return { ...route, objections: [...route.objections, objection] };
}

/** Says where a route does not reach the uncertainty that is asked for. */
function withTarget({ targetRelativeU }: Wish, route: Route): Route {
  const { relativeUncertainty, dominatedBy } = route;
  if (targetRelativeU === undefined || relativeUncertainty === null) return route;
  if (2 * relativeUncertainty <= targetRelativeU) return route;
  const objection = `U would be ${percent(2 * relativeUncertainty)}, more than the ${percent(targetRelativeU)} asked for; most of it comes from ${dominatedBy ?? 'one input'}.`;
  return { ...route, objections: [...route.objections, objection] };
}

function byMerit(a: Route, b: Route): number {
  const rank = (route: Route): number =>
    route.objections.length * 1000 + (route.relativeUncertainty ?? 10);
  return rank(a) - rank(b);
}

/** How much larger a preparation is tried when its uncertainty is to become smaller. */
const LARGER = [2, 4, 10] as const;

/**
 * What would halve the uncertainty of a way: the other ways to the same solution, and the same ways to more of it, are tried.
 * Null when the way has no uncertainty of its own.
 */
export function whatWouldHalve(wish: Wish, route: Route, shelf: PlannerShelf): string | null {
  const { relativeUncertainty: now, dominatedBy } = route;
  if (now === null) return null;
  const better = [1, ...LARGER]
    .flatMap((times) => planRoutes({ ...wish, volumeMl: times * wish.volumeMl }, shelf))
    .filter((one) => one.objections.length === 0 && (one.relativeUncertainty ?? 1) < 0.9 * now)
    .toSorted((a, b) => a.volumeMl - b.volumeMl);
  const halved = better.find((one) => (one.relativeUncertainty ?? 1) <= now / 2);
  const best =
    halved ??
    better.toSorted((a, b) => (a.relativeUncertainty ?? 1) - (b.relativeUncertainty ?? 1))[0];
  if (!best) {
    return `Nothing on the shelf makes it smaller: it comes from ${dominatedBy ?? 'all inputs alike'}.`;
  }
  const how = `${best.sourceName}, ${figureText(roundHalfEven(best.volumeMl, 0))} mL`;
  const u = percent(2 * (best.relativeUncertainty ?? 0));
  return halved
    ? `Halved by ${how}: U about ${u}.`
    : `Nothing here halves it; ${how} brings it to ${u}.`;
}
