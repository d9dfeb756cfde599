import type { Concentrate as CatalogueConcentrate } from '../chemistry';
import { findSubstance, molarMass } from '../chemistry';
import type { PlainDate } from '../laboratory';
import { combineComponents } from '../measurement';
import type { EquipmentState } from '../metrology';
import { isCalibrationOverdue } from '../metrology';
import type { BottleState, LotState } from '../reagent';
import { freshnessOf, isLotExpired, lotMolarMass } from '../reagent';
import type {
  ConcentrateOnShelf,
  MeasuringVessel,
  PlannerShelf,
  SolidOnShelf,
  SolutionOnShelf,
} from './planner';

/** What a laboratory keeps, as its records tell it. */
export interface Records {
  readonly lots: readonly LotState[];
  readonly bottles: readonly (BottleState & { readonly leftMl: number })[];
  readonly equipment: readonly EquipmentState[];
}

/** How the percentage on a concentrate is meant: the two differ by its density. */
export type PercentMeaning = 'by-mass' | 'by-volume';

/** What of a laboratory's records a plan for a substance may use on a day: nothing expired, no equipment past its date. */
export function plannerShelf(
  substanceId: string,
  { lots, bottles, equipment }: Records,
  concentrate: { readonly entry: CatalogueConcentrate; readonly meaning: PercentMeaning } | null,
  today: PlainDate,
): PlannerShelf {
  const inUse = equipment
    .map(({ id, equipment: item }) => ({ id, item }))
    .filter(({ item }) => !isCalibrationOverdue(item, today));
  return {
    solids: lots
      .filter(({ lot }) => lot.substanceId === substanceId && !isLotExpired(lot, today))
      .map(solidOf),
    concentrates: concentrate ? [concentrateOf(concentrate.entry, concentrate.meaning)] : [],
    solutions: bottles
      .filter((bottle) => bottle.substanceId === substanceId)
      .map((bottle) => solutionOf(bottle, today)),
    vessels: inUse.flatMap(({ id, item }): MeasuringVessel[] =>
      item.type === 'glassware'
        ? [
            {
              id,
              name: item.name,
              kind: item.kind,
              volumeMl: Number(item.volumeMl),
              tolerance: {
                name: 'tolerance',
                distribution: item.toleranceDistribution,
                halfWidth: Number(item.toleranceMl),
              },
            },
          ]
        : [],
    ),
    balances: inUse.flatMap(({ id, item }) =>
      item.type === 'balance' ? [{ id, balance: item }] : [],
    ),
  };
}

function solidOf({ id, lot }: LotState): SolidOnShelf {
  const substance = findSubstance(lot.substanceId);
  const ofLot = lotMolarMass(lot);
  const purity = Number(lot.purity);
  const purityUncertainty = combineComponents([
    {
      name: 'purity',
      distribution: lot.purityDistribution,
      halfWidth: Number(lot.purityHalfWidth),
    },
  ]);
  return {
    id,
    name: `${substance?.shortName ?? lot.substanceId}, lot ${lot.lotNumber}`,
    molarMassGPerMol: ofLot.valueGPerMol,
    purity,
    relativeUncertainty: Math.hypot(
      purityUncertainty / purity,
      ofLot.standardUncertaintyGPerMol / ofLot.valueGPerMol,
    ),
    isStandard: substance?.role === 'primary-standard',
  };
}

function concentrateOf(
  { id, substanceId, massPercent, densityGPerMl }: CatalogueConcentrate,
  meaning: PercentMeaning,
): ConcentrateOnShelf {
  const substance = findSubstance(substanceId);
  if (!substance) throw new RangeError(`substance ${substanceId} is not in the catalogue`);
  return {
    id,
    name: `${substance.shortName} ${String(massPercent)} %`,
    concentrate: {
      massFraction: massPercent / 100,
      // Grams in 100 mL are what a solution of density 1 would hold.
      densityGPerMl: meaning === 'by-mass' ? densityGPerMl : 1,
      molarMassGPerMol: molarMass(substance.formula).valueGPerMol,
    },
  };
}

function solutionOf(bottle: Records['bottles'][number], today: PlainDate): SolutionOnShelf {
  const { id, code, leftMl } = bottle;
  const freshness = freshnessOf(bottle, today);
  const name = `bottle ${code}`;
  if (freshness.kind === 'certified' || freshness.kind === 'due-soon') {
    const { molarity, expandedUncertainty, coverageFactor } = freshness.certified;
    const relativeUncertainty =
      Number(expandedUncertainty) / Number(coverageFactor) / Number(molarity);
    return { id, name, molarityMolPerL: Number(molarity), relativeUncertainty, leftMl };
  }
  return {
    id,
    name,
    molarityMolPerL: Number(bottle.nominalMolarity),
    relativeUncertainty: null,
    leftMl,
  };
}
