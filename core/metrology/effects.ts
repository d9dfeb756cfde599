import type { Component, Expression } from '../measurement';
import { exact, minus, plus, product, sum, UNITS } from '../measurement';
import type { Balance, Burette, CalibratedBalance, CalibrationPoint, Glassware } from './equipment';
import { certifiedAt } from './equipment';
import type { Liquid } from './temperature';
import { shrinkagePerK, volumeAtReference } from './temperature';

/**
 * Repeatability of a mass by two weighings (tare and gross), in g. Where the balance's repeatability is smaller than
 * what its display can show, the rounding of the display takes its place.
 */
export function weighingRepeatability(balance: Balance): readonly Component[] {
  const single: Component =
    Number(balance.repeatabilityG) > 0
      ? { name: 'repeatability', standardUncertainty: Number(balance.repeatabilityG) }
      : {
          name: 'readability',
          distribution: 'rectangular',
          halfWidth: Number(balance.readabilityG) / 2,
        };
  return [
    { ...single, name: `${single.name}, empty` },
    { ...single, name: `${single.name}, filled` },
  ];
}

/**
 * Deviation from linearity of a mass by two weighings, counted once for each, in g.
 * Source: EURACHEM/CITAC Guide CG 4, example A2 (linearity twice for a difference).
 */
export function weighingLinearity(balance: Balance): readonly Component[] {
  const halfWidth = Number(balance.linearityG);
  return [
    { name: 'linearity, empty', distribution: 'rectangular', halfWidth },
    { name: 'linearity, filled', distribution: 'rectangular', halfWidth },
  ];
}

/** What a balance shows wrong of a mass: what its certificate corrects, g, and what is not known of it. */
export interface WeighingDeviation {
  readonly correctionG: number;
  readonly components: readonly Component[];
  readonly isCertified: boolean;
}

/** What is known of a mass on a balance: by its certificate, or within its linearity. */
export function weighingDeviation(balance: CalibratedBalance, massG: number): WeighingDeviation {
  const certified = certifiedAt(balance.calibration, massG);
  return certified
    ? {
        correctionG: certified.deviation,
        components: calibrationComponents(certified),
        isCertified: true,
      }
    : { correctionG: 0, components: weighingLinearity(balance), isCertified: false };
}

/** Tolerance of what measures a volume, in mL: of a burette, over the volume of a filling. */
export function volumeTolerance({
  toleranceDistribution,
  toleranceMl,
}: Burette | Glassware): readonly Component[] {
  return [
    { name: 'tolerance', distribution: toleranceDistribution, halfWidth: Number(toleranceMl) },
  ];
}

/**
 * One reading of a burette, in mL. Glass: a fifth of a division either way, values near the reading likelier
 * (triangular). Piston: half a step of the display (rectangular).
 */
export function buretteReading(burette: Burette): readonly Component[] {
  const division = Number(burette.divisionMl);
  return burette.construction === 'glass'
    ? [{ name: 'reading', distribution: 'triangular', halfWidth: division / 5 }]
    : [{ name: 'display', distribution: 'rectangular', halfWidth: division / 2 }];
}

/** The end point lies within this either way of where it is put, in mL: half a drop when it was met well. */
export function endPointWithin(halfWidthMl: number): readonly Component[] {
  return [{ name: 'last drop', distribution: 'rectangular', halfWidth: halfWidthMl }];
}

/** A pipette is filled to its mark within this part of its tolerance. */
const FILLING_PART = 1 / 3;

/**
 * How well an aliquot is repeated, in mL. Pipette: filling and draining, the scatter of its own calibration where that
 * tells, else taken as a third of the tolerance. Burette: its two readings.
 * Source: EURACHEM/CITAC Guide CG 4, appendix G (repeatability apart from calibration).
 */
export function deliveryRepeatability(
  vessel: Burette | Glassware,
  calibrated: CalibrationPoint | null,
): readonly Component[] {
  if (vessel.type === 'glassware') {
    const standardUncertainty =
      calibrated?.repeatability ?? Number(vessel.toleranceMl) * FILLING_PART;
    return [{ name: 'filling and draining', standardUncertainty }];
  }
  const [reading] = buretteReading(vessel);
  if (!reading) throw new RangeError('a burette has a reading');
  return [
    { ...reading, name: `${reading.name}, initial` },
    { ...reading, name: `${reading.name}, final` },
  ];
}

/** What a calibration leaves unknown of a volume, in mL. */
export function calibrationComponents({
  expandedUncertainty,
}: Pick<CalibrationPoint, 'expandedUncertainty'>): readonly Component[] {
  return [{ name: 'calibration', expandedUncertainty, coverageFactor: 2 }];
}

/**
 * What a volume of a liquid has at the reference temperature for each mL that was read at the temperature measured; `deviationK` is
 * what is not known of that.
 */
export function volumeFactorAtReference(
  liquid: Liquid,
  temperatureC: number,
  referenceC: number,
  deviationK: Expression,
): Expression {
  const perK = shrinkagePerK(liquid, temperatureC, referenceC);
  return product([
    exact(volumeAtReference(liquid, temperatureC, referenceC)),
    volumeFactorAt20(perK, deviationK),
  ]);
}

/** 1 - gamma dT: what a volume has at 20 °C of the volume it has dT above; gamma of the solvent, in 1/K. */
export function volumeFactorAt20(
  cubicExpansionPerK: number,
  temperatureDeviationK: Expression,
): Expression {
  return sum([
    plus(exact(1)),
    minus(product([exact(cubicExpansionPerK, UNITS.perKelvin), temperatureDeviationK])),
  ]);
}
