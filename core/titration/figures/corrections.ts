import { solventOf } from '../../chemistry';
import type { Expression } from '../../measurement';
import { exact, figureText, quotient } from '../../measurement';
import type { MeasuredLiquid } from '../../metrology';
import {
  buoyancyFactor,
  correctedTemperatureC,
  correctingThermometer,
  massFactor,
  thermalFactor,
  volumeAtReference,
} from '../../metrology';
import type { CorrectionHow } from '../../wording';
import type { RunState } from '../run';
import { arrangementOf, isAnalysis, standardSubstance } from '../setUp';

/** What the corrections of a run hang on. */
type Corrected = Pick<RunState, 'id' | 'setUp' | 'references'>;

/** The titrant as its temperature was measured, or is taken to be. */
function titrantOf(run: Corrected): MeasuredLiquid {
  const { temperatureC, temperatureVariationK } = run.setUp;
  return {
    inputId: `run:${run.id}/temperature`,
    what: 'temperature of the titrant',
    liquid: solventOf(run.references.method.solventId),
    readC: Number(temperatureC),
    variationK: Number(temperatureVariationK),
    thermometer: run.references.thermometer,
    source: `${figureText(temperatureC)} °C, ± ${figureText(temperatureVariationK)} K (95 %)`,
  };
}

/** What a volume of the run has at the reference temperature, for each mL as it was read. */
export function volumeFactorOf(run: Corrected): Expression {
  return thermalFactor(titrantOf(run), run.setUp.rules);
}

/** From what the balance shows of a weighed standard to its mass; null where nothing is done about the lift of the air. */
export function massFactorOf(run: Corrected): Expression | null {
  const { rules, airDensityKgPerM3: air } = run.setUp;
  return massFactor(weighedDensity(run), air === null ? null : Number(air), rules);
}

/** Density of a standard that is weighed, g/cm³; null where none is, and for what it is not known of, as of a sample. */
function weighedDensity({ references }: Corrected): number | null {
  if (isAnalysis(references) || references.standard.kind !== 'lot') return null;
  return standardSubstance(references.standard)?.densityGPerCm3 ?? null;
}

/**
 * Both corrections in one, for what is calculated in plain numbers. The volume of a solution stands against a mass only where one
 * was weighed; between two solutions its correction cancels, so that it is taken with the mass.
 */
export function plainMassFactor(run: Corrected): Expression {
  return quotient(massFactorOf(run) ?? exact(1), volumeFactorOf(run));
}

/** By how much a correction moves a result, and what was done about it. */
interface CorrectionSize {
  readonly percent: number;
  readonly how: CorrectionHow;
}

/** What is corrected in a result, or would be: a result as measured, for whoever checks it with a calculator. */
export interface Corrections {
  readonly referenceC: number;
  readonly temperatureC: number;
  /** The result without the corrections that were made, in its unit. */
  readonly asMeasured: number;
  /** Null where volumes stand on both sides, so that it cancels. */
  readonly temperature: CorrectionSize | null;
  /** Null where nothing is weighed, or no density is known. */
  readonly buoyancy: CorrectionSize | null;
}

/** What is corrected in a result of a run: that of a weighed standard is as the mass, and against the volume. */
export function correctionsOf(run: Corrected, result: number): Corrections {
  const { rules, temperatureC: read, airDensityKgPerM3: air } = run.setUp;
  const { portion, soughtIn } = arrangementOf(run.references);
  const referenceC = Number(rules.referenceTemperatureC);
  const titrant = titrantOf(run);
  const thermometer = correctingThermometer(titrant, rules);
  const atC = thermometer ? correctedTemperatureC(thermometer, Number(read)) : Number(read);
  const density = weighedDensity(run);
  const temperature: CorrectionSize | null =
    portion.unit === 'g'
      ? {
          // A titrant is the weaker for a larger volume of it, a sample the richer.
          percent:
            100 *
            (volumeAtReference(titrant.liquid, atC, referenceC) **
              (soughtIn === 'burette' ? -1 : 1) -
              1),
          how: thermometer ? 'corrected' : 'carried',
        }
      : null;
  const buoyancy: CorrectionSize | null =
    density === null
      ? null
      : {
          percent: 100 * (buoyancyOf(density, air) - 1),
          how: rules.buoyancyCorrection,
        };
  const made = [temperature, buoyancy].flatMap((size) =>
    size?.how === 'corrected' ? [size.percent] : [],
  );
  return {
    referenceC,
    temperatureC: Number(read),
    asMeasured: made.reduce((value, percent) => value / (1 + percent / 100), result),
    temperature,
    buoyancy,
  };
}

function buoyancyOf(densityGPerCm3: number, air: string | null): number {
  return buoyancyFactor({
    sampleDensityKgPerM3: 1000 * densityGPerCm3,
    ...(air !== null && { airDensityKgPerM3: Number(air) }),
  });
}
