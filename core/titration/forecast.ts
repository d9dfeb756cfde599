import { netMassG } from '../metrology';
import { moleRatioOfMethod } from '../chemistry';
import { lotMolarMass, nominalMolPerL } from '../reagent';
import { summarize } from '../statistics';
import { SLOW_MARGIN_ML } from './determination';
import type { Flask, RunReferences, RunState } from './run';
import { titreMl } from './run';
import type { WeighedStandard } from './stoichiometry';
import { expectedTitreMl } from './stoichiometry';

/** Where the end point of a flask is expected on the burette. All in mL. */
export interface Forecast {
  readonly titreMl: number;
  /** The titre is expected within plus or minus this. */
  readonly halfBandMl: number;
  /** What it rests on: the label, the rough titration, or the titrations made so far. */
  readonly basis: 'nominal' | 'rough' | 'replicates';
  /** What one drop too many is worth, in percent of the titre. */
  readonly dropPercent: number;
  /** Null until the initial reading is known. */
  readonly onBurette: {
    readonly runFreelyTo: number;
    readonly expected: number;
    readonly from: number;
    readonly to: number;
    /** Whether the end comes before the last mark, band included. */
    readonly holds: boolean;
  } | null;
}

/** Replicates of a careful series agree better than this, relative. */
const SERIES_HALF_BAND = 0.003;

/** A rough titration may have overshot by so many drops. */
const ROUGH_DROPS = 3;

/** The standard that a run rests on, for the arithmetic between mass and titre. */
export function standardOf({
  lot,
  method,
}: Pick<RunReferences, 'lot' | 'method'>): WeighedStandard {
  return {
    moleRatio: moleRatioOfMethod(method),
    purity: Number(lot.lot.purity),
    molarMassGPerMol: lotMolarMass(lot.lot).valueGPerMol,
  };
}

/** Molarity that one flask gives: c = 1000 nu m P / (M V), in mol/L; null until it is titrated. */
export function flaskMolarity(run: RunState, flask: Flask): number | null {
  const titre = titreMl(flask);
  if (titre === null || Number(titre) <= 0) return null;
  // The equation is symmetric in c and V.
  return expectedTitreMl(
    standardOf(run.references),
    Number(netMassG(flask.weighing.value)),
    Number(titre),
  );
}

/** The molarity to expect, and how far a titre may stray from it, relative. */
function expectation(run: RunState): {
  molarity: number;
  relativeHalfBand: number;
  basis: Forecast['basis'];
} {
  const dropMl = Number(run.references.burette.dropMl);
  const found = run.flasks
    .filter((flask) => !flask.voided)
    .map((flask) => ({ flask, molarity: flaskMolarity(run, flask) }))
    .filter((item): item is { flask: Flask; molarity: number } => item.molarity !== null);
  const accurate = summarize(
    found.filter((item) => !item.flask.isRough).map((item) => item.molarity),
  );
  if (accurate) {
    const scatter = (2 * (accurate.relativeSdPercent ?? 0)) / 100;
    return {
      molarity: accurate.mean,
      relativeHalfBand: Math.max(SERIES_HALF_BAND, scatter),
      basis: 'replicates',
    };
  }
  const [rough] = found;
  if (rough) {
    const overshoot = (ROUGH_DROPS * dropMl) / Number(titreMl(rough.flask));
    return {
      molarity: rough.molarity,
      relativeHalfBand: SERIES_HALF_BAND + overshoot,
      basis: 'rough',
    };
  }
  return {
    molarity: nominalMolPerL(run.references.bottle),
    relativeHalfBand: Number(run.setUp.rules.nominalTolerancePercent) / 100,
    basis: 'nominal',
  };
}

/**
 * Forecasts the titre of a mass of standard, and where it ends on the burette when the level is at `initialMl`. The
 * band is wide while the titrant is only nominal (it may be stronger than its label) and narrows with each
 * titration.
 */
export function forecastTitre(run: RunState, massG: number, initialMl: number | null): Forecast {
  const { molarity, relativeHalfBand, basis } = expectation(run);
  const titre = expectedTitreMl(standardOf(run.references), massG, molarity);
  const dropMl = Number(run.references.burette.dropMl);
  const halfBandMl = titre * relativeHalfBand + dropMl / 2;
  const dropPercent = (100 * dropMl) / titre;
  if (initialMl === null) {
    return { titreMl: titre, halfBandMl, basis, dropPercent, onBurette: null };
  }
  const expected = initialMl + titre;
  const from = expected - halfBandMl;
  const to = expected + halfBandMl;
  return {
    titreMl: titre,
    halfBandMl,
    basis,
    dropPercent,
    onBurette: {
      runFreelyTo: Math.max(initialMl, Math.floor((from - SLOW_MARGIN_ML) * 10) / 10),
      expected,
      from,
      to,
      holds: to <= Number(run.references.burette.capacityMl),
    },
  };
}
