import { findSubstance, shortNameOf } from '../chemistry';
import type { PlainDate } from '../grammar';
import { combineComponents, figureText, roundHalfEven, roundSignificant } from '../measurement';
import { isCalibrationOverdue, volumeTolerance } from '../metrology';
import type { BottleState, LotState } from '../reagent';
import {
  freshnessOf,
  isLotExpired,
  knownMolarity,
  lotMolarity,
  lotMolarMass,
  lotPurityComponent,
  mayBeUsed,
} from '../reagent';
import type { Left } from './startChecks';
import type {
  ConcentrateOnShelf,
  MeasuringVessel,
  PlannerShelf,
  SolidOnShelf,
  SolutionOnShelf,
} from './route';
import type { PreparationRecords } from './result';

/**
 * What of a laboratory's records a plan for a substance may use on a day: nothing expired or withdrawn, no equipment past its
 * date.
 */
export function plannerShelf(
  substanceId: string,
  { lots, bottles, equipment }: PreparationRecords,
  left: Left,
  today: PlainDate,
): PlannerShelf {
  const inUse = equipment
    .filter((one) => !one.withdrawn && !isCalibrationOverdue(one.equipment, today))
    .map(({ id, equipment: item }) => ({ id, item }));
  const usable = lots.filter(
    ({ lot, withdrawn }) =>
      lot.substanceId === substanceId && !withdrawn && !isLotExpired(lot, today),
  );
  const leftOf = (id: string): number => left(id) ?? Number.POSITIVE_INFINITY;
  return {
    solids: usable
      .filter(({ lot }) => !lot.dissolved)
      .map((lot) => ({ ...solidOf(lot), leftG: leftOf(lot.id) })),
    concentrates: usable
      .filter(({ lot }) => lot.dissolved)
      .map((lot) => ({ ...concentrateOf(lot), leftMl: leftOf(lot.id) })),
    solutions: bottles
      .filter(
        (bottle) =>
          bottle.substanceId === substanceId &&
          bottle.nominalMolarity !== null &&
          mayBeUsed(freshnessOf(bottle, today)),
      )
      .map((bottle) => ({ ...solutionOf(bottle), leftMl: leftOf(bottle.id) })),
    vessels: inUse.flatMap(({ id, item }): MeasuringVessel[] =>
      item.type === 'glassware'
        ? [
            {
              id,
              name: item.name,
              kind: item.kind,
              volumeMl: Number(item.volumeMl),
              tolerance: volumeTolerance(item),
            },
          ]
        : [],
    ),
    balances: inUse.flatMap(({ id, item }) =>
      item.type === 'balance' ? [{ id, balance: item }] : [],
    ),
  };
}

function solidOf({ id, lot }: LotState): Omit<SolidOnShelf, 'leftG'> {
  const substance = findSubstance(lot.substanceId, lot.own);
  const ofLot = lotMolarMass(lot);
  const purity = Number(lot.purity);
  const purityUncertainty = combineComponents([lotPurityComponent(lot)]);
  return {
    id,
    name: `${shortNameOf(lot)}, lot ${lot.lotNumber}`,
    molarMassGPerMol: ofLot.valueGPerMol,
    purity,
    relativeUncertainty: Math.hypot(
      purityUncertainty / purity,
      ofLot.standardUncertaintyGPerMol / ofLot.valueGPerMol,
    ),
    isStandard: substance?.role === 'primary-standard',
  };
}

function concentrateOf({ id, lot }: LotState): Omit<ConcentrateOnShelf, 'leftMl'> {
  const molarMass = lotMolarMass(lot).valueGPerMol;
  const percent = roundHalfEven(100 * Number(lot.purity), 1).replace(/\.0$/, '');
  const byVolume = roundSignificant((1000 * Number(lot.purity)) / molarMass, 3);
  const { dissolved } = lot;
  const strength =
    dissolved?.meaning === 'by-molarity'
      ? `${figureText(dissolved.molarity)} mol/L`
      : `${percent} %`;
  const remarks = {
    'by-mass': `Its label means % by mass; grams in 100 mL would be ${figureText(byVolume)} mol/L.`,
    'by-volume': 'Its label means grams in 100 mL, not % by mass.',
    'by-molarity': 'Its label states mol/L.',
  };
  return {
    id,
    name: `${shortNameOf(lot)} ${strength}, lot ${lot.lotNumber}`,
    molarityMolPerL: lotMolarity(lot) ?? 0,
    remark: dissolved ? remarks[dissolved.meaning] : '',
  };
}

function solutionOf(bottle: BottleState): Omit<SolutionOnShelf, 'leftMl'> {
  const { id, code } = bottle;
  const name = `bottle ${code}`;
  const known = knownMolarity(bottle);
  if (!known) {
    const molarityMolPerL = Number(bottle.nominalMolarity);
    return { id, name, molarityMolPerL, relativeUncertainty: null, isSample: false };
  }
  const { molarity, expandedUncertainty, coverageFactor } = known;
  return {
    id,
    name,
    molarityMolPerL: Number(molarity),
    relativeUncertainty: Number(expandedUncertainty) / Number(coverageFactor) / Number(molarity),
    isSample: false,
  };
}
