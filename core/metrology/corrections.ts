import type { CorrectionRules } from '../laboratory';
import type { Expression } from '../measurement';
import { commonInput, define, figureText, UNITS } from '../measurement';
import { buoyancyExpression } from './buoyancy';
import { volumeFactorAt20, volumeFactorAtReference } from './effects';
import type { CalibratedThermometer } from './equipment';
import type { Liquid } from './temperature';
import { correctedTemperatureC, temperatureDeviation, thermometerReading } from './temperature';

/** The temperature of a solution whose volume is measured. */
export interface MeasuredLiquid {
  /** Of the input that its temperature is. */
  readonly inputId: string;
  /** `temperature of the titrant`. */
  readonly what: string;
  readonly liquid: Liquid;
  readonly readC: number;
  /** Half-width of a 95 % interval. */
  readonly variationK: number;
  /** What read it; null where nobody measured it. */
  readonly thermometer: CalibratedThermometer | null;
  /** Where the temperature comes from, when it is not corrected for. */
  readonly source: string;
}

/** The thermometer by which volumes are corrected; null where they are as read. What is no water always is, where it was measured. */
export function correctingThermometer(
  { liquid, thermometer }: Pick<MeasuredLiquid, 'liquid' | 'thermometer'>,
  { volumeCorrection }: CorrectionRules,
): CalibratedThermometer | null {
  return volumeCorrection === 'corrected' || !liquid.isWater ? thermometer : null;
}

/** What a volume has at the reference temperature of the house rule, for each mL as it was read. */
export function thermalFactor(measured: MeasuredLiquid, rules: CorrectionRules): Expression {
  const { inputId, what, liquid, readC, variationK } = measured;
  const { referenceTemperatureC: reference } = rules;
  const thermometer = correctingThermometer(measured, rules);
  const given = { id: inputId, symbol: 'ΔT', effect: 'Temperature', value: 0, unit: UNITS.kelvin };
  if (!thermometer) {
    const deviation = commonInput({
      ...given,
      name: `${what} above ${reference} °C`,
      components: temperatureDeviation(readC, variationK, Number(reference)),
      source: measured.source,
    });
    return volumeFactorAt20(liquid.cubicExpansionPerK, deviation);
  }
  const deviation = commonInput({
    ...given,
    name: `${what} above ${figureText(readC)} °C`,
    components: thermometerReading(thermometer, readC, variationK),
    source: `${figureText(readC)} °C on ${thermometer.name}, ± ${figureText(variationK)} K (95 %)`,
  });
  return define(
    'f_T',
    `volume at ${reference} °C for each mL read at ${figureText(readC)} °C`,
    UNITS.one,
    volumeFactorAtReference(
      liquid,
      correctedTemperatureC(thermometer, readC),
      Number(reference),
      deviation,
    ),
  );
}

/** From what the balance shows to the mass; null where nothing is done about the lift of the air, or no density is known. */
export function massFactor(
  densityGPerCm3: number | null,
  measuredAirKgPerM3: number | null,
  { buoyancyCorrection }: CorrectionRules,
): Expression | null {
  if (densityGPerCm3 === null || buoyancyCorrection === 'left-out') return null;
  return define(
    'b',
    'mass for each gram shown',
    UNITS.one,
    buoyancyExpression(
      1000 * densityGPerCm3,
      measuredAirKgPerM3,
      buoyancyCorrection === 'corrected',
    ),
  );
}
