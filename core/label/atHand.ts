import type { Substance } from '../chemistry';
import { findIndicator, findSolvent, findSubstance } from '../chemistry';
import type { HouseRules } from '../laboratory';
import type { BottleState } from '../reagent';
import { knownMolarity } from '../reagent';
import type { RunReferences } from '../titration/setUp';
import type { Hazards } from './classification';
import { hazardsOfBottle, hazardsOfLot, hazardsOfSolution } from './classification';

/** Something that stands on the bench, and its hazards as it stands there. */
export interface HazardousThing {
  /** `NaOH, 0.1 mol/L`. */
  readonly name: string;
  readonly hazards: Hazards;
}

type OnTheBench = Pick<RunReferences, 'method' | 'bottle' | 'standard' | 'excess'>;

/** The hazards of all that a run has at hand, of each at its own concentration. */
export function hazardsAtHand({
  method,
  bottle,
  standard,
  excess,
}: OnTheBench): readonly HazardousThing[] {
  const indicator = findIndicator(method.indicatorId ?? '');
  return [
    ofBottle(bottle),
    standard.kind === 'lot'
      ? {
          name: `${shortName(standard.lot.lot.substanceId)}, as received`,
          hazards: hazardsOfLot(standard.lot),
        }
      : ofBottle(standard.bottle),
    ...(excess ? [ofBottle(excess.bottle)] : []),
    ...(method.mediumHolds ?? []).map(({ id, molarityMolPerL }) => ({
      name:
        molarityMolPerL === null
          ? (findSolvent(id)?.name ?? shortName(id))
          : `${shortName(id)}, about ${String(molarityMolPerL)} mol/L`,
      hazards: hazardsOfSolution(id, molarityMolPerL),
    })),
    ...(indicator
      ? [{ name: `${indicator.name}, as made up`, hazards: hazardsOfSolution(indicator.id, null) }]
      : []),
  ];
}

function ofBottle(bottle: BottleState): HazardousThing {
  const { substanceId, nominalMolarity } = bottle;
  const molarity = knownMolarity(bottle)?.molarity ?? nominalMolarity;
  return {
    name:
      molarity === null ? shortName(substanceId) : `${shortName(substanceId)}, ${molarity} mol/L`,
    hazards: hazardsOfBottle(bottle),
  };
}

function shortName(substanceId: string): string {
  return findSubstance(substanceId)?.shortName ?? substanceId;
}

/** The container that each class of waste has. */
const CONTAINERS: Readonly<Record<Substance['waste'], string>> = {
  'acid-base': 'acid and base waste',
  manganese: 'manganese waste',
  chromium: 'chromium waste',
  mercury: 'mercury waste',
  silver: 'silver waste',
  iodine: 'iodine waste',
  metal: 'metal waste',
  organic: 'organic solvents',
  harmless: '',
};

/** What is never poured down a sink, whatever the house rule says. */
const ALWAYS_COLLECTED: ReadonlySet<Substance['waste']> = new Set([
  'chromium',
  'mercury',
  'organic',
]);

/** Where the waste of some substances goes by the house rule, in a sentence for each way out. */
export function waysOut(
  substanceIds: readonly string[],
  { waste: rule }: Pick<HouseRules, 'waste'>,
): readonly string[] {
  const substances = [...new Set(substanceIds)].flatMap((id) => findSubstance(id) ?? []);
  const classes = [...new Set(substances.map(({ waste }) => waste))];
  return classes.map((waste) => {
    const of = substances.filter((one) => one.waste === waste);
    const names = of.map((one) => one.shortName).join(', ');
    const isPoured = waste === 'harmless' || (rule === 'sink' && !ALWAYS_COLLECTED.has(waste));
    return isPoured
      ? `${names}: down the sink with much water, where the local code allows it.`
      : `${names}: to the container for ${CONTAINERS[waste]}${ALWAYS_COLLECTED.has(waste) ? ', never down the sink' : ''}.`;
  });
}

/** The substances that a run leaves behind. */
export function substancesOf({ method, bottle, standard, excess }: OnTheBench): readonly string[] {
  return [
    bottle.substanceId,
    standard.kind === 'lot' ? standard.lot.lot.substanceId : standard.bottle.substanceId,
    ...(excess ? [excess.bottle.substanceId] : []),
    ...(method.mediumHolds ?? []).map(({ id }) => id),
  ];
}
