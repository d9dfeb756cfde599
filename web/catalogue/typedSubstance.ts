import type { Container, Drying, Keeping, OwnEntry, Substance } from '#core/chemistry';
import { otherForms } from '#core/chemistry';
import { Unanswerable } from '#core/problem';
import { numberIn } from '../ui/numberIn';
import { linesOf } from '../rules/typedMethod';
import type { TypedBand } from './HazardFields';
import { bandsOf, typedBands } from './HazardFields';
import type { TypedDuration } from './typedFigures';
import { durationOf, figureOf, numberOrNull, typedDuration } from './typedFigures';

type OwnSubstance = Extract<OwnEntry, { readonly kind: 'substance' }>;

/** How a solid is dried, as a form holds it. */
export interface TypedDrying {
  /** Empty where nothing is said of it. */
  readonly kind: Drying['kind'] | '';
  readonly low: string;
  readonly high: string;
  readonly hours: string;
  readonly remark: string;
}

/** How solutions look, as a form holds it. */
export interface TypedColour {
  /** Empty where they are as clear as water. */
  readonly word: string;
  readonly css: string;
  readonly molarity: string;
}

/** How solutions keep, as a form holds it. */
export interface TypedKeeping {
  readonly interval: TypedDuration;
  readonly container: Container;
  readonly remark: string;
  readonly endedBy: string;
}

/** A substance as its form holds it. */
export interface TypedSubstance {
  readonly name: string;
  readonly shortName: string;
  readonly formula: string;
  readonly role: Substance['role'];
  readonly form: string;
  readonly density: string;
  readonly drying: TypedDrying;
  readonly solubility: string;
  readonly solventId: string;
  readonly colour: TypedColour;
  readonly hazards: readonly TypedBand[];
  readonly cautions: string;
  readonly waste: Substance['waste'];
  readonly keeping: TypedKeeping;
  readonly source: string;
  readonly reason: string;
}

/** What a form begins with that copies nothing. */
export const NO_SUBSTANCE: OwnSubstance = {
  kind: 'substance',
  substance: {
    ...{ id: '', name: '', shortName: '', formula: '', role: 'primary-standard', form: 'crystals' },
    ...{ densityGPerCm3: null, drying: null, solubilityMolPerL: null, needs: null },
    solutionColour: null,
    ...{ solution: { solventId: 'water', additions: [] }, hazards: [], cautions: [] },
    ...{ waste: 'acid-base', mistakenFor: [], source: '' },
  },
  keeping: null,
};

export function typedSubstance({ substance, keeping }: OwnSubstance): TypedSubstance {
  const { drying } = substance;
  const oven = drying?.kind === 'oven' ? drying : null;
  return {
    name: substance.name,
    shortName: substance.shortName,
    formula: substance.formula,
    role: substance.role,
    form: substance.form,
    density: figureOf(substance.densityGPerCm3),
    drying: {
      kind: drying?.kind ?? '',
      low: figureOf(oven?.temperatureC[0]),
      high: figureOf(oven?.temperatureC[1]),
      hours: figureOf(oven?.hours),
      remark: drying?.remark ?? '',
    },
    solubility: figureOf(substance.solubilityMolPerL),
    solventId: substance.solution.solventId,
    colour: {
      word: substance.solutionColour?.word ?? '',
      css: substance.solutionColour?.css ?? '#cfe0e1',
      molarity: figureOf(substance.solutionColour?.atMolPerL),
    },
    hazards: typedBands(substance.hazards),
    cautions: substance.cautions.join('\n'),
    waste: substance.waste,
    keeping: {
      interval: typedDuration(keeping?.interval),
      container: keeping?.container ?? 'plastic',
      remark: keeping?.remark ?? '',
      endedBy: keeping?.endedBy ?? '',
    },
    source: substance.source,
    reason: '',
  };
}

/** The same as an entry holds it, under the id of its record; what the form does not show stays. */
export function writtenSubstance(
  { substance, keeping }: OwnSubstance,
  typed: TypedSubstance,
  id: string,
  known: readonly Substance[],
) {
  return {
    kind: 'substance' as const,
    substance: {
      ...substance,
      id,
      name: typed.name.trim(),
      shortName: typed.shortName.trim(),
      formula: typed.formula.trim(),
      role: typed.role,
      form: typed.form.trim(),
      densityGPerCm3: numberOrNull(typed.density),
      drying: dryingOf(typed.drying),
      solubilityMolPerL: numberOrNull(typed.solubility),
      solution: { ...substance.solution, solventId: typed.solventId },
      solutionColour: colourOf(typed.colour),
      hazards: bandsOf(typed.hazards),
      cautions: linesOf(typed.cautions),
      waste: typed.waste,
      mistakenFor: [
        ...new Set([
          ...substance.mistakenFor,
          ...formsBeside(typed.formula, id, known).map((form) => form.substance.id),
        ]),
      ],
      source: typed.source.trim(),
    },
    keeping: keepingOf(typed, keeping, id),
  };
}

/** The other substances of a formula, with more water or less; none while it cannot be read. */
export function formsBeside(
  formula: string,
  id: string,
  known: readonly Substance[],
): ReturnType<typeof otherForms> {
  try {
    return otherForms(formula.trim(), known).filter(({ substance }) => substance.id !== id);
  } catch (error) {
    if (error instanceof Unanswerable) return [];
    throw error;
  }
}

function colourOf({ word, css, molarity }: TypedColour) {
  return word.trim() === '' ? null : { word: word.trim(), css, atMolPerL: numberIn(molarity) };
}

function dryingOf({ kind, low, high, hours, remark }: TypedDrying) {
  if (kind === '') return null;
  return kind === 'oven'
    ? {
        kind,
        temperatureC: [numberIn(low), numberIn(high === '' ? low : high)] as const,
        hours: numberOrNull(hours),
        remark: remark.trim(),
      }
    : { kind, remark: remark.trim() };
}

/** Null where nobody says how long it keeps. */
function keepingOf({ keeping, source }: TypedSubstance, was: Keeping | null, id: string) {
  const { interval, container, remark, endedBy } = keeping;
  if (interval.count.trim() === '') return null;
  return {
    ...{ dilute: null, lastsFor: null, settles: null },
    ...was,
    substanceId: id,
    interval: durationOf(interval),
    container,
    remark: remark.trim() === '' ? 'its bottle, tightly closed' : remark.trim(),
    endedBy: endedBy.trim(),
    source: source.trim(),
  };
}
