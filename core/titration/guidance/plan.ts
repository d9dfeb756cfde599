import type { Method, Procedure } from '../../chemistry';
import { CATALOGUE, moleRatioOfMethod } from '../../chemistry';
import { MOLARITY, PlainDetermination, solutionOf } from '../../determination';
import type { HouseRules } from '../../laboratory';
import { exact } from '../../measurement';
import type { Burette } from '../../metrology';
import { plainDeterminationOf } from '../figures';
import type { RunReferences } from '../setUp';
import {
  arrangementOf,
  isAnalysis,
  sampleOf,
  soughtOf,
  takesWholeUnits,
  unitMassG,
} from '../setUp';

/** What to weigh or pipette, and what the series will take. */
export interface SeriesPlan {
  /** In g, or mL of a solution; a pipette leaves no choice, so all three are its volume. */
  readonly portion: Range;
  readonly titreMl: Range;
  /** Titrations that one filling of the burette serves at the suggested portion. */
  readonly titrationsPerFilling: number;
  readonly titrations: number;
  /** What the burette takes for the series, in mL, part by part. */
  readonly titrant: readonly { readonly what: string; readonly volumeMl: number }[];
  readonly titrantTotalMl: number;
}

interface Range {
  readonly suggested: number;
  readonly least: number;
  readonly most: number;
}

/** The burette's good range, as parts of its capacity. */
export const GOOD_RANGE = { least: 0.4, most: 0.9 };

/**
 * The aim within the good range: a little under half the burette, so that two titrations come out of one filling
 * with some titrant to spare, and readings still weigh little in the result.
 */
export const AIM = 0.47;

/** What a blank takes where the medium takes any, with a drop too much; one is planned for where none is asked for. */
const ONE_BLANK: BlankNeed = { blanks: 1, eachMl: 1 };

/**
 * Blanks that a method asks for: what is taken off every titre alike is not known from one, and a slip in it would show
 * nowhere.
 */
export function blanksAsked({ needsBlank }: Pick<Procedure, 'needsBlank'>): number {
  return needsBlank ? 2 : 0;
}

/** The blanks of a series and what they take: all that an excess takes, if there is one and a blank with it. */
function blankNeed(method: Procedure, { excessTitreMl }: PlainDetermination): BlankNeed {
  const asked = blanksAsked(method);
  if (excessTitreMl !== null) return { blanks: asked, eachMl: excessTitreMl };
  return { ...ONE_BLANK, blanks: Math.max(ONE_BLANK.blanks, asked) };
}

interface BlankNeed {
  readonly blanks: number;
  /** Titrant that one takes, mL. */
  readonly eachMl: number;
}

/** Titrant that runs through the tip when the burette is filled above zero and let down, mL. */
const TIP_ML = 2;

/**
 * Plans a series of replicates; `fixed` is the portion where it leaves no choice, mL or g, `blank` what the
 * blanks take. Source of the good range: 40 to 90 % of the burette's capacity, below which reading errors dominate and above which a
 * refill adds two readings.
 */
export function planSeries(
  determination: PlainDetermination,
  molarityMolPerL: number,
  burette: Burette,
  rules: HouseRules,
  fixed: number | null,
  blank = ONE_BLANK,
): SeriesPlan {
  const capacityMl = Number(burette.capacityMl);
  const good = {
    suggested: AIM * capacityMl,
    least: GOOD_RANGE.least * capacityMl,
    most: GOOD_RANGE.most * capacityMl,
  };
  const ofFixed = fixed === null ? null : determination.titreMl(fixed, molarityMolPerL);
  const titreMl = { ...good, suggested: ofFixed ?? good.suggested };
  const portion = (titre: number): number => fixed ?? determination.portion(titre, molarityMolPerL);
  // The more is in the flask, the less is left of an excess.
  const ends = [portion(titreMl.least), portion(titreMl.most)] as const;
  return {
    portion: {
      suggested: portion(titreMl.suggested),
      least: Math.min(...ends),
      most: Math.max(...ends),
    },
    titreMl,
    // Two titres of half a burette fit, whatever their last bit.
    titrationsPerFilling: Math.floor(capacityMl / titreMl.suggested + 1e-9),
    ...titrantNeed(burette, rules, Math.max(0, titreMl.suggested), blank),
  };
}

/** Plans the series of a run, at the label's molarity while no better one is known (mol/L). */
export function planRun(
  references: RunReferences,
  rules: HouseRules,
  molarityMolPerL = soughtOf(references).expected,
): SeriesPlan {
  const { burette, method } = references;
  const determination = plainDeterminationOf(references);
  return planSeries(
    determination,
    molarityMolPerL,
    burette,
    rules,
    fixedPortion(references),
    blankNeed(method, determination),
  );
}

/** A portion that leaves no choice: what a pipette holds, mL, or a whole unit, g; null where there is one. */
function fixedPortion(references: RunReferences): number | null {
  return isAnalysis(references) && takesWholeUnits(references.portioning)
    ? unitMassG(sampleOf(references).state)
    : arrangementOf(references).portion.fixedMl;
}

/** Titrations that a house rule asks for, the rough one with them. */
export function plannedTitrations(rules: HouseRules): number {
  return (rules.firstIsRough ? 1 : 0) + rules.agreeAtLeast;
}

/** Titrant that a series takes, with rinses, tip, rough titration and one repeat in reserve. */
export function titrantNeed(
  burette: Burette,
  rules: HouseRules,
  titreMl = AIM * Number(burette.capacityMl),
  { blanks, eachMl } = ONE_BLANK,
): Pick<SeriesPlan, 'titrations' | 'titrant' | 'titrantTotalMl'> {
  const titrations = plannedTitrations(rules);
  const fillings = Math.ceil((titrations * titreMl) / Number(burette.capacityMl));
  const titrant = [
    {
      what: `${String(rules.rinses)} rinses of the burette`,
      volumeMl: rules.rinses * Number(rules.rinseMl),
    },
    { what: 'filling the tip', volumeMl: fillings * TIP_ML },
    ...(rules.firstIsRough ? [{ what: 'rough titration', volumeMl: titreMl }] : []),
    {
      what: `${String(rules.agreeAtLeast)} titrations`,
      volumeMl: rules.agreeAtLeast * titreMl,
    },
    { what: 'one repeat in reserve', volumeMl: titreMl },
    ...(blanks > 0
      ? [{ what: blanks === 1 ? 'a blank' : `${String(blanks)} blanks`, volumeMl: blanks * eachMl }]
      : []),
  ];
  return {
    titrations,
    titrant,
    titrantTotalMl: titrant.reduce((total, part) => total + part.volumeMl, 0),
  };
}

/** An aliquot of a standard solution whose titre lies in the burette's good range. */
export interface AliquotSuggestion {
  readonly method: Method;
  readonly aliquotMl: number;
  readonly titreMl: number;
}

/**
 * For each method that takes aliquots of a standard, the pipette at hand whose titre comes nearest to the middle of the burette,
 * at the titrant's usual molarity; none where no pipette brings it into the good range.
 */
export function suggestAliquots(
  standardId: string,
  molarityMolPerL: number,
  pipettesMl: readonly number[],
  capacityMl: number,
): readonly AliquotSuggestion[] {
  return CATALOGUE.methods
    .filter(
      // Where the standard is in the burette, the aliquots are of what is standardized.
      (method) =>
        method.standardId === standardId &&
        method.inBurette === 'titrant' &&
        method.portions.some(({ kind }) => kind === 'aliquot'),
    )
    .flatMap((method) => {
      const determination = byAliquotsOf(method, molarityMolPerL);
      const titreOf = (aliquotMl: number): number =>
        determination.titreMl(aliquotMl, method.nominalMolarityMolPerL);
      const [best] = pipettesMl
        .map((aliquotMl) => ({ method, aliquotMl, titreMl: titreOf(aliquotMl) }))
        .filter(
          ({ titreMl }) =>
            titreMl >= GOOD_RANGE.least * capacityMl && titreMl <= GOOD_RANGE.most * capacityMl,
        )
        .toSorted(
          (a, b) => Math.abs(a.titreMl / capacityMl - AIM) - Math.abs(b.titreMl / capacityMl - AIM),
        );
      return best ? [best] : [];
    });
}

/** A titrant standardized by aliquots of a solution of that molarity. */
function byAliquotsOf(method: Method, molarityMolPerL: number): PlainDetermination {
  return new PlainDetermination({
    soughtIn: 'burette',
    sought: MOLARITY,
    known: solutionOf(molarityMolPerL),
    soughtPerKnown: exact(moleRatioOfMethod(method)),
    excess: null,
    blank: { kind: 'none' },
  });
}
