import type { Id } from '../grammar';
import type { Addition, Own, Preparation, PreparationStep } from '../chemistry';
import {
  describeDrying,
  findIndicator,
  findSolvent,
  findSubstance,
  INDICATOR_STEPS,
  intoFlask,
  recipesOf,
  stepsByProcedure,
  usualSteps,
  withWaterBy,
} from '../chemistry';
import type { CorrectionRules, HouseRules } from '../laboratory';
import type { DecimalText } from '../measurement';
import { figureText, roundSignificant } from '../measurement';
import type { Parent, Purpose } from '../reagent';

/** Where the solute comes from, how much of it is wanted, and in which vessels. */
export type PreparationSource =
  | {
      readonly kind: 'weigh';
      readonly lotId: Id;
      readonly massG: DecimalText;
      readonly balanceId: Id;
      /** Null for a beaker and a cylinder. */
      readonly flaskId: Id | null;
    }
  | {
      readonly kind: 'concentrate';
      readonly lotId: Id;
      readonly takeMl: DecimalText;
      readonly cylinderId: Id | null;
      /** Null for a beaker and a cylinder. */
      readonly flaskId: Id | null;
    }
  | {
      /** Volumes added together, not made up to a mark. */
      readonly kind: 'add-volumes';
      readonly bottleId: Id;
      readonly takeMl: DecimalText;
      /** The weaker solution that it is added to; null for water. */
      readonly weakerBottleId: Id | null;
      readonly fillMl: DecimalText;
      readonly cylinderId: Id | null;
    }
  | {
      readonly kind: 'dilute';
      readonly from:
        | { readonly kind: 'bottle'; readonly bottleId: Id }
        | { readonly kind: 'sample'; readonly name: string; readonly molarity: DecimalText };
      /** A pipette into a flask, once or several times. */
      readonly stages: readonly { readonly pipetteId: Id; readonly flaskId: Id }[];
    }
  | { readonly kind: 'indicator' };

/** What is to be made, and from what. */
export interface PreparationPlan {
  readonly purpose: Purpose;
  /** A substance, or an indicator, of the catalogue. */
  readonly soluteId: string;
  readonly own?: Own;
  /** Null to take the recipe that fits the source. */
  readonly recipeId: string | null;
  /** The edition of the recipes that its steps are taken from. */
  readonly recipeEdition: number;
  /** Null for an indicator. */
  readonly targetMolarity: DecimalText | null;
  readonly volumeMl: DecimalText;
  readonly source: PreparationSource;
  /** How water for a base is freed of carbon dioxide: the house rule when it was planned. */
  readonly carbonDioxide: HouseRules['carbonDioxide'];
  /** How mass and volume are corrected: the house rules when it was planned. */
  readonly corrections: CorrectionRules;
  /** What reads the temperature at the mark; null where nobody measures it so that a volume could be corrected. */
  readonly thermometerId: Id | null;
  /** Local date and time in the laboratory, `2026-11-26T15:00`; null when there is no hurry. */
  readonly neededBy: string | null;
  readonly note: string;
  /** Why it goes on in spite of a warning. */
  readonly reason: string | null;
}

/** What a step asks to be measured. */
export type Measure =
  | { readonly kind: 'mass'; readonly targetG: number; readonly balanceId: Id }
  | { readonly kind: 'volume'; readonly targetMl: number; readonly vesselId: Id | null }
  | { readonly kind: 'temperature' };

/** A step of a guided preparation. */
export interface Step {
  /** The work and its turn: `mix`, `mix-2`. */
  readonly id: string;
  readonly work: PreparationStep['work'];
  readonly text: string;
  /** Null when nobody has to wait. */
  readonly waitMinutes: number | null;
  readonly measures: Measure | null;
  /** The flask, pipette or thermometer that it is done with, where that matters. */
  readonly vesselId: Id | null;
  /** What to take care of in it. */
  readonly caution: string | null;
}

/**
 * Whether masses and volumes of a plan stand in the equation: what is pipetted into a flask, and a standard weighed into
 * one. What is standardized afterwards does not become exact by the flask that it is made up in.
 */
export function isExact({ source, soluteId, own }: PreparationPlan): boolean {
  if (source.kind === 'dilute') return true;
  const isStandard = findSubstance(soluteId, own)?.role === 'primary-standard';
  return source.kind === 'weigh' && source.flaskId !== null && isStandard;
}

/** The flask in which a plan is made up to the mark, the last one of several; null for a beaker. */
export function volumetricFlaskOf({ source }: PreparationPlan): string | null {
  switch (source.kind) {
    case 'weigh':
    case 'concentrate':
      return source.flaskId;
    case 'dilute':
      return source.stages.at(-1)?.flaskId ?? null;
    case 'add-volumes':
    case 'indicator':
      return null;
  }
}

/** The lots and bottles that a solution was made from. */
export function parentsOf(source: PreparationSource): readonly Parent[] {
  switch (source.kind) {
    case 'weigh':
    case 'concentrate':
      return [{ kind: 'lot', id: source.lotId }];
    case 'add-volumes':
      return [source.bottleId, source.weakerBottleId]
        .filter((id) => id !== null)
        .map((id) => ({ kind: 'bottle', id }));
    case 'dilute':
      return source.from.kind === 'bottle' ? [{ kind: 'bottle', id: source.from.bottleId }] : [];
    case 'indicator':
      return [];
  }
}

/** The recipe of the catalogue that a plan follows; undefined where the usual steps serve. */
export function recipeOf(plan: PreparationPlan): Preparation | undefined {
  const known = recipesOf(plan.recipeEdition, plan.own);
  return plan.recipeId === null
    ? known.find((recipe) => recipe.soluteId === plan.soluteId && isFor(recipe, plan))
    : known.find(({ id }) => id === plan.recipeId);
}

/** Whether the recipe that a plan names is there and goes with its source: one that weighs does not draw from a bottle. */
export function recipeFits(plan: PreparationPlan): boolean {
  if (plan.recipeId === null) return true;
  const recipe = recipeOf(plan);
  return recipe?.soluteId === plan.soluteId && isFor(recipe, plan);
}

function isFor({ route, exactness, from }: Preparation, plan: PreparationPlan): boolean {
  if ((exactness === 'exact') !== isExact(plan)) return false;
  switch (plan.source.kind) {
    case 'weigh':
      return route === 'weighed';
    case 'concentrate':
      return from?.kind === 'concentrate';
    case 'dilute':
      return from?.kind === 'stock';
    case 'add-volumes':
      return from?.kind === 'stock';
    case 'indicator':
      return false;
  }
}

/**
 * Why a plan has no guided steps: its solution needs more than water, and no recipe of its edition says how. Null where the steps
 * serve.
 */
export function whyByProcedure(plan: PreparationPlan): string | null {
  const recipe = recipeOf(plan);
  const substance = findSubstance(plan.soluteId, plan.own);
  if (!substance || recipe || substance.needs === null) return null;
  return `There are no guided steps: ${substance.name} needs ${substance.needs}. Follow your laboratory’s written procedure; the figures are recorded here.`;
}

function plainSteps(plan: PreparationPlan): readonly PreparationStep[] {
  if (whyByProcedure(plan) !== null) {
    return stepsByProcedure(plan.source.kind === 'weigh' ? 'weigh' : 'measure', isExact(plan));
  }
  const steps = withWaterBy(stepsInItsVessel(plan), plan.carbonDioxide);
  return volumetricFlaskOf(plan) === null || isExact(plan) ? steps : intoFlask(steps);
}

function stepsInItsVessel(plan: PreparationPlan): readonly PreparationStep[] {
  const recipe = recipeOf(plan);
  if (recipe) return withAdditions(recipe, plan);
  const isDried = findSubstance(plan.soluteId, plan.own)?.drying?.kind === 'oven';
  switch (plan.source.kind) {
    case 'weigh':
      return usualSteps(isExact(plan) ? 'weighed-exactly' : 'weighed-roughly', isDried);
    case 'concentrate':
      return usualSteps('from-concentrate', isDried);
    case 'dilute':
      return usualSteps('diluted', isDried);
    case 'add-volumes':
      return usualSteps('volumes-added', isDried);
    case 'indicator':
      return indicatorSteps(plan);
  }
}

/** How an indicator is made up; in the first edition of the recipes all were dissolved. */
function indicatorSteps({
  soluteId,
  own,
  recipeEdition,
}: PreparationPlan): readonly PreparationStep[] {
  const steps = recipeEdition > 1 ? findIndicator(soluteId, own)?.steps : null;
  return steps ?? INDICATOR_STEPS;
}

/** The steps of a recipe; the last thing that is added says how much of it goes into this solution. */
function withAdditions(
  recipe: Preparation,
  { volumeMl, targetMolarity }: PreparationPlan,
): readonly PreparationStep[] {
  const { steps, additions } = recipe;
  const times = Number(volumeMl) / recipe.volumeMl;
  const stronger = Math.max(1, Number(targetMolarity ?? 0) / recipe.molarityMolPerL);
  const amounts = additions.map((addition: Addition) => {
    const grown = times * (addition.growsWithSolute ? stronger : 1);
    const amount =
      'massG' in addition
        ? `${figureText(roundSignificant(grown * addition.massG, 2))} g`
        : `${figureText(roundSignificant(grown * addition.volumeMl, 2))} mL`;
    return `${amount} of ${addition.what}`;
  });
  if (amounts.length === 0) return steps;
  const last = steps.findLastIndex(({ work }) => work === 'add');
  return steps.map((step, i) =>
    i === last ? { ...step, text: `${step.text} Add ${amounts.join(' and ')}.` } : step,
  );
}

/** The steps of a preparation, in the order of doing; the same for the same plan. */
export function stepsOf(plan: PreparationPlan): readonly Step[] {
  const turns = new Map<string, number>();
  const steps: Step[] = [];
  for (const { step, stage } of staged(plan)) {
    const turn = (turns.get(step.work) ?? 0) + 1;
    turns.set(step.work, turn);
    steps.push({
      ...step,
      ...dryingOf(plan, step),
      id: turn === 1 ? step.work : `${step.work}-${String(turn)}`,
      measures: measureOf(plan, step.work),
      vesselId: vesselOf(plan, step.work, stage),
      caution: cautionOf(plan, step.work),
    });
  }
  return steps;
}

/** Pipetting, filling and mixing come again with each stage of a dilution. */
function staged(plan: PreparationPlan): { step: PreparationStep; stage: number }[] {
  const steps = plainSteps(plan);
  if (plan.source.kind !== 'dilute') return steps.map((step) => ({ step, stage: 0 }));
  const isAfter = ({ work }: PreparationStep): boolean =>
    work === 'procedure' || work === 'bottle' || work === 'label';
  const repeated = steps.filter((step) => !isAfter(step));
  return [
    ...plan.source.stages.flatMap((_, stage) => repeated.map((step) => ({ step, stage }))),
    ...steps.filter(isAfter).map((step) => ({ step, stage: 0 })),
  ];
}

/** Cautions that go with a kind of work, whatever the substance. Source: usual laboratory practice. */
const CAUTIONS: Readonly<Partial<Record<Step['work'], string>>> = {
  dry: 'The oven and what comes out of it are hot: tongs, heatproof gloves.',
  heat: 'Glass on a hot plate is hot and looks cold: tongs, goggles, nothing flammable near it.',
  boil: 'It scalds, and water from a microwave oven can erupt; never stopper it hot.',
  stand: 'Closed and labelled: nobody else knows what it is.',
  filter: 'Sintered glass, never paper; goggles.',
  label: 'An unlabelled bottle is waste.',
};

/** What to take care of in a step: a concentrate before all. */
function cautionOf(plan: PreparationPlan, work: Step['work']): string | null {
  const { source, soluteId, own } = plan;
  if (work === 'measure' && source.kind === 'concentrate') {
    const solvent = findSolvent(recipeOf(plan)?.solventId ?? 'water')?.name ?? 'solvent';
    return `Goggles, gloves, coat, fume cupboard; into the ${solvent}, never the reverse.`;
  }
  if (work === 'measure' && source.kind === 'dilute') return 'Never pipette by mouth.';
  if (work === 'weigh') return findSubstance(soluteId, own)?.cautions[0] ?? null;
  return CAUTIONS[work] ?? null;
}

/** How the substance itself is dried, or the indicator made, takes precedence over the general words. */
function dryingOf(plan: PreparationPlan, { work }: PreparationStep): Partial<Step> {
  if (plan.source.kind === 'indicator' && work === 'dissolve') {
    const text = findIndicator(plan.soluteId, plan.own)?.preparation;
    return text === undefined ? {} : { text: `${text}. Dissolved?` };
  }
  const drying = findSubstance(plan.soluteId, plan.own)?.drying;
  if (work !== 'dry' || !drying) return {};
  const hours = drying.kind === 'oven' ? drying.hours : null;
  return {
    text: `Dry it: ${describeDrying(drying)}.`,
    waitMinutes: hours === null ? null : 60 * hours,
  };
}

function measureOf(plan: PreparationPlan, work: Step['work']): Measure | null {
  const { source } = plan;
  if (work === 'weigh' && source.kind === 'weigh') {
    return { kind: 'mass', targetG: Number(source.massG), balanceId: source.balanceId };
  }
  if (work === 'measure' && (source.kind === 'concentrate' || source.kind === 'add-volumes')) {
    return { kind: 'volume', targetMl: Number(source.takeMl), vesselId: source.cylinderId };
  }
  return work === 'to-room-temperature' && isExact(plan) ? { kind: 'temperature' } : null;
}

function vesselOf(plan: PreparationPlan, work: Step['work'], stage: number): Id | null {
  const { source } = plan;
  if (work === 'to-room-temperature' && isExact(plan)) return plan.thermometerId;
  if (source.kind === 'weigh' || source.kind === 'concentrate') {
    return work === 'to-mark' || work === 'transfer' ? source.flaskId : null;
  }
  if (source.kind !== 'dilute') return null;
  const vessels = source.stages[stage];
  if (work === 'measure') return vessels?.pipetteId ?? null;
  return work === 'to-mark' ? (vessels?.flaskId ?? null) : null;
}
