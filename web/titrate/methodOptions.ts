import type { Method, MethodState } from '#core/chemistry';
import { methodsFor } from '#core/chemistry';
import type { PlainDate } from '#core/grammar';
import type { HouseRules } from '#core/laboratory';
import type { BottleState, LotState } from '#core/reagent';
import { freshnessOf, knownMolarity, mayBeUsed } from '#core/reagent';
import type { MethodChoice } from '#core/titration/setUp';

/** A way to standardize a bottle: a method, and where its standard comes from. */
export interface MethodOption {
  readonly key: string;
  readonly name: string;
  readonly choice: MethodChoice;
  readonly method: Method;
  /** What may serve as the standard; one of the two lists is empty. */
  readonly lots: readonly LotState[];
  readonly bottles: readonly BottleState[];
  readonly takes: 'lot' | 'bottle';
  /** For a back-titration, the solutions of which the flasks may get an excess; empty without one. */
  readonly excesses: readonly BottleState[];
}

/** Whether the shelf holds what it needs. */
export function isPossible({ lots, bottles, method, excesses }: MethodOption): boolean {
  return lots.length + bottles.length > 0 && (method.excess === null || excesses.length > 0);
}

/** What the shelf holds. */
export interface Shelf {
  readonly today: PlainDate;
  readonly methods: readonly MethodState[];
  readonly lots: readonly LotState[];
  readonly bottles: readonly BottleState[];
  /** What is left of each lot and bottle, g of solids, mL of solutions; without those of which it is not known. */
  readonly left: ReadonlyMap<string, number>;
}

/**
 * The ways to standardize a bottle: those for which there is a standard first, among them the one that the house rules
 * prefer, own methods before those that ship.
 */
export function methodOptionsFor(
  bottle: BottleState,
  shelf: Shelf,
  rules: HouseRules,
): readonly MethodOption[] {
  const own = shelf.methods
    .filter(({ method, withdrawn }) => !withdrawn && method.titrantIds.includes(bottle.substanceId))
    .map(({ id, version, method }) => ({
      method,
      choice: { kind: 'own', id, version } as const,
    }));
  const shipped = methodsFor(bottle.substanceId).map((method) => ({
    method,
    choice: { kind: 'catalogue', id: method.id } as const,
  }));
  const preferred = rules.standardBy === 'weighed' ? 'lot' : 'bottle';
  const rank = (option: MethodOption): number =>
    (isPossible(option) ? 0 : 4) +
    (option.takes === preferred ? 0 : 2) +
    (option.takes === 'lot' || holdsPreferred(option, bottle, shelf, rules) ? 0 : 1);
  return [...own, ...shipped]
    .flatMap(({ method, choice }) =>
      method.portions.map(({ kind }) => optionOf(bottle, shelf, method, choice, kind)),
    )
    .toSorted((a, b) => rank(a) - rank(b));
}

/** Whether the burette holds the solution that the house rule prefers there. */
function holdsPreferred(
  { method, bottles }: MethodOption,
  bottle: BottleState,
  { left }: Shelf,
  { inBurette }: HouseRules,
): boolean {
  if (inBurette !== 'more') return method.inBurette === inBurette;
  const leftIn = (one: BottleState | undefined): number => left.get(one?.id ?? '') ?? 0;
  const holdsMore = leftIn(bottle) >= leftIn(bottles[0]) ? 'titrant' : 'standard';
  return method.inBurette === holdsMore;
}

function optionOf(
  bottle: BottleState,
  shelf: Shelf,
  method: Method,
  choice: MethodChoice,
  portion: 'weighed' | 'aliquot',
): MethodOption {
  const { excess } = method;
  const excesses = excess ? knownSolutions(bottle, shelf, excess.substanceId) : [];
  const base = { key: `${choice.id} ${portion}`, choice, method, excesses };
  const both = method.portions.length > 1;
  if (portion === 'weighed') {
    const lots = shelf.lots.filter(
      ({ lot, withdrawn }) => !withdrawn && !lot.dissolved && lot.substanceId === method.standardId,
    );
    const name = both ? `${method.name}, weighed` : method.name;
    return { ...base, name, takes: 'lot', lots, bottles: [] };
  }
  const bottles = knownSolutions(bottle, shelf, method.standardId);
  const name = both ? `${method.name}, aliquots of its solution` : method.name;
  return { ...base, name, takes: 'bottle', lots: [], bottles };
}

/** The other bottles of a substance whose molarity is known: in date before those that are not, the newest first. */
function knownSolutions(
  bottle: BottleState,
  { bottles, today }: Shelf,
  substanceId: string,
): readonly BottleState[] {
  const isUsable = (one: BottleState): boolean => mayBeUsed(freshnessOf(one, today));
  return bottles
    .filter(
      (one) =>
        !one.withdrawn &&
        one.id !== bottle.id &&
        one.substanceId === substanceId &&
        knownMolarity(one) !== null,
    )
    .toReversed()
    .toSorted((a, b) => Number(isUsable(b)) - Number(isUsable(a)));
}
