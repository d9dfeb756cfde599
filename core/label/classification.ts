import type {
  HazardBand,
  HazardCode,
  Own,
  Pictogram,
  PrecautionCode,
  Substance,
} from '../chemistry';
import {
  CATALOGUE,
  findContent,
  findIndicator,
  findSolvent,
  findSubstance,
  HAZARD_STATEMENTS,
  hazardsAt,
  molarMass,
  PRECAUTIONS,
  precautionsFor,
  solventOf,
  unionOf,
} from '../chemistry';
import type { BottleState, LotState } from '../reagent';
import { labelledMolarity } from '../reagent';

/** Hazards as a label or a page shows them. */
export interface Hazards {
  readonly signal: 'Danger' | 'Warning' | null;
  readonly pictograms: readonly Pictogram[];
  readonly statements: readonly { readonly code: HazardCode; readonly text: string }[];
  /** What to do about them, the most urgent first. */
  readonly precautions: readonly { readonly code: PrecautionCode; readonly text: string }[];
  /** The safety data sheet that they are taken from; null where they come from the catalogue, to be checked against one. */
  readonly sheet: string | null;
}

/** Irritation of skin and eyes, which the corrosion sign and that of sensitized airways speak for. */
const IRRITATION: ReadonlySet<HazardCode> = new Set(['H315', 'H319']);

/**
 * Signal word, pictograms and statements of hazard codes. The exclamation mark is left out beside the skull; for irritation beside
 * corrosion; for irritation and sensitized skin beside sensitized airways.
 * Source: Regulation (EC) No 1272/2008, articles 20 and 26.
 */
export function hazardsOf(codes: readonly HazardCode[], sheet: string | null = null): Hazards {
  const found = codes.map((code) => ({ code, ...HAZARD_STATEMENTS[code] }));
  const signals = new Set(found.map(({ signal }) => signal));
  const signs = new Set(found.flatMap(({ pictogram }) => pictogram ?? []));
  const isSpokenFor = (code: HazardCode): boolean =>
    signs.has('skull') ||
    (signs.has('corrosion') && IRRITATION.has(code)) ||
    (codes.includes('H334') && (IRRITATION.has(code) || code === 'H317'));
  const pictograms = new Set(
    found.flatMap(({ code, pictogram }) =>
      pictogram === null || (pictogram === 'exclamation' && isSpokenFor(code)) ? [] : [pictogram],
    ),
  );
  return {
    signal: signals.has('Danger') ? 'Danger' : signals.has('Warning') ? 'Warning' : null,
    pictograms: [...pictograms],
    statements: found.map(({ code, text }) => ({ code, text })),
    precautions: precautionsFor(codes).map((code) => ({ code, text: PRECAUTIONS[code] })),
    sheet,
  };
}

/** Something in a mixture, and how much of it there is, in % by mass. */
interface Ingredient {
  readonly hazards: readonly HazardBand[];
  readonly massPercent: number;
}

/**
 * Hazards of a mixture: of each ingredient at its own concentration, together. What adds up between ingredients, each below its limit,
 * is not calculated.
 */
function hazardsOfMixture(ingredients: readonly Ingredient[]): Hazards {
  return hazardsOf(
    unionOf(ingredients.map(({ hazards, massPercent }) => hazardsAt(hazards, massPercent))),
  );
}

/** Of a substance or a solvent. @throws RangeError for what is neither */
function bandsOf(id: string, own: Own = []): readonly HazardBand[] {
  const hazards = findSolvent(id)?.hazards ?? findSubstance(id, own)?.hazards;
  if (!hazards) throw new RangeError(`${id} is not in the catalogue`);
  return hazards;
}

/** Turns until mass fraction and density belong together; each changes the other by a few per cent. */
const TURNS = 20;

/**
 * Mass fraction in % of a substance in a solution of so many mol/L. The density of the solution lies on the line from the solvent to the
 * concentrate that is on sale, or is that of solvent and crystals side by side.
 */
function massPercentOf(
  { id, formula, densityGPerCm3, solution }: Substance,
  molPerL: number,
): number {
  const solvent = solventOf(solution.solventId).densityGPerMl;
  const concentrate = CATALOGUE.concentrates.find(({ substanceId }) => substanceId === id);
  const gPerL = molPerL * molarMass(formula).valueGPerMol;
  const densityAt = (percent: number): number => {
    if (concentrate) {
      const part = percent / concentrate.massPercent;
      return solvent + part * (concentrate.densityGPerMl - solvent);
    }
    const solute = percent / 100;
    return densityGPerCm3 === null
      ? solvent
      : 1 / ((1 - solute) / solvent + solute / densityGPerCm3);
  };
  let percent = 0;
  for (let turn = 0; turn < TURNS; turn += 1) {
    percent = Math.min(100, gPerL / (10 * densityAt(percent)));
  }
  return percent;
}

/** What is in a solution of a substance: itself, what was added, and the rest of solvent. */
function ingredientsOf(substance: Substance, molPerL: number): readonly Ingredient[] {
  const { solventId, additions } = substance.solution;
  const { densityGPerMl, hazards } = solventOf(solventId);
  const own = { hazards: substance.hazards, massPercent: massPercentOf(substance, molPerL) };
  const added = additions.map(({ substanceId, gPerL }) => ({
    hazards: bandsOf(substanceId),
    massPercent: gPerL / (10 * densityGPerMl),
  }));
  const rest = [own, ...added].reduce((left, { massPercent }) => left - massPercent, 100);
  return [own, ...added, { hazards, massPercent: Math.max(0, rest) }];
}

/** Hazards of a solution at its own concentration, with all that is in it; an indicator as it is made up, a solvent as it is. */
export function hazardsOfSolution(
  contentId: string,
  molarityMolPerL: number | null,
  own: Own = [],
): Hazards {
  const substance = findSubstance(contentId, own);
  if (substance) {
    return molarityMolPerL === null
      ? hazardsOf(hazardsAt(substance.hazards, 100))
      : hazardsOfMixture(ingredientsOf(substance, molarityMolPerL));
  }
  const solvent = findSolvent(contentId);
  if (solvent) return hazardsOf(hazardsAt(solvent.hazards, 100));
  const indicator = findIndicator(contentId, own);
  if (!indicator) return hazardsOf([]);
  const { ownPercent, holds } = indicator.madeUp;
  return hazardsOfMixture([
    { hazards: indicator.hazards, massPercent: ownPercent },
    ...holds.map(({ id, massPercent }) => ({ hazards: bandsOf(id, own), massPercent })),
  ]);
}

/** Hazards of what is in a bottle, as strong as it is known to be, else as its label has it. */
export function hazardsOfBottle(bottle: BottleState): Hazards {
  const molarity = labelledMolarity(bottle);
  return hazardsOfSolution(
    bottle.substanceId,
    molarity === null ? null : Number(molarity),
    bottle.own,
  );
}

/** Hazards of a lot as received: by its own safety data sheet, else the solid, or the concentrate at its strength. */
export function hazardsOfLot({ lot, classified }: Pick<LotState, 'lot' | 'classified'>): Hazards {
  if (classified) return hazardsOf(classified.codes, classified.sheet);
  const content = findContent(lot.substanceId, lot.own);
  if (!content) return hazardsOf([]);
  if (lot.dissolved?.meaning === 'by-molarity') {
    return hazardsOfSolution(lot.substanceId, Number(lot.dissolved.molarity), lot.own);
  }
  return hazardsOf(hazardsAt(content.hazards, lot.dissolved ? 100 * Number(lot.purity) : 100));
}
