import { figureText } from '../measurement';
import type { Substance } from '../chemistry';
import { findIndicator, findSolvent, findSubstance, shortNameOf } from '../chemistry';
import type { HouseRules } from '../laboratory';
import type { BottleState } from '../reagent';
import { labelledMolarity } from '../reagent';
import type { AnalysisReferences, StandardizationReferences } from '../titration/setUp';
import { isAnalysis, standardSubstance } from '../titration/setUp';
import type { Hazards } from './classification';
import { hazardsOfBottle, hazardsOfLot, hazardsOfSolution } from './classification';

/** Something that stands on the bench, and its hazards as it stands there. */
export interface HazardousThing {
  /** `NaOH, 0.1 mol/L`. */
  readonly name: string;
  readonly hazards: Hazards;
}

type OnTheBench =
  | Pick<StandardizationReferences, 'method' | 'bottle' | 'standard' | 'excess'>
  | Pick<AnalysisReferences, 'method' | 'titrant' | 'samples' | 'excess'>;

/** The hazards of all that a run has at hand, of each at its own concentration. What a sample holds nobody knows. */
export function hazardsAtHand(references: OnTheBench): readonly HazardousThing[] {
  const { method, excess } = references;
  const ids = [method.indicatorId, 'twoEnds' in method ? method.twoEnds.first.indicatorId : null];
  const indicators = ids.flatMap((id) => findIndicator(id ?? '', method.own) ?? []);
  return [
    ...solutionsIn(references),
    ...(excess ? [ofBottle(excess.bottle)] : []),
    ...(method.mediumHolds ?? []).map(({ id, molarityMolPerL }) => ({
      name:
        molarityMolPerL === null
          ? (findSolvent(id)?.name ?? shortNameOf({ substanceId: id }))
          : `${shortNameOf({ substanceId: id })}, about ${String(molarityMolPerL)} mol/L`,
      hazards: hazardsOfSolution(id, molarityMolPerL),
    })),
    ...indicators.map((indicator) => ({
      name: `${indicator.name}, as made up`,
      hazards: hazardsOfSolution(indicator.id, null, method.own),
    })),
  ];
}

function solutionsIn(references: OnTheBench): readonly HazardousThing[] {
  if (isAnalysis(references)) return [ofBottle(references.titrant)];
  const { bottle, standard } = references;
  return [
    ofBottle(bottle),
    standard.kind === 'lot'
      ? {
          name: `${shortNameOf(standard.lot.lot)}, as received`,
          hazards: hazardsOfLot(standard.lot),
        }
      : ofBottle(standard.bottle),
  ];
}

function ofBottle(bottle: BottleState): HazardousThing {
  const molarity = labelledMolarity(bottle);
  const name = shortNameOf(bottle);
  return {
    name: molarity === null ? name : `${name}, ${figureText(molarity)} mol/L`,
    hazards: hazardsOfBottle(bottle),
  };
}

/** The container that each class of waste has; none where it is harmless. */
export const WASTE_CONTAINERS: Readonly<Record<Substance['waste'], string>> = {
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
  substances: readonly Substance[],
  { waste: rule }: Pick<HouseRules, 'waste'>,
): readonly string[] {
  const classes = [...new Set(substances.map(({ waste }) => waste))];
  return classes.map((waste) => {
    const of = substances.filter((one) => one.waste === waste);
    const names = of.map((one) => one.shortName).join(', ');
    const isPoured = waste === 'harmless' || (rule === 'sink' && !ALWAYS_COLLECTED.has(waste));
    return isPoured
      ? `${names}: down the sink with much water, where the local code allows it.`
      : `${names}: to the container for ${WASTE_CONTAINERS[waste]}${ALWAYS_COLLECTED.has(waste) ? ', never down the sink' : ''}.`;
  });
}

/** The substances that a run leaves behind. */
export function substancesOf(references: OnTheBench): readonly Substance[] {
  const { method, excess } = references;
  const bottle = isAnalysis(references) ? references.titrant : references.bottle;
  const found = [
    findSubstance(bottle.substanceId, bottle.own),
    isAnalysis(references) ? null : standardSubstance(references.standard),
    excess && findSubstance(excess.bottle.substanceId, excess.bottle.own),
    ...(method.mediumHolds ?? []).map(({ id }) => findSubstance(id)),
  ].flatMap((one) => one ?? []);
  return [...new Map(found.map((one) => [one.id, one])).values()];
}
