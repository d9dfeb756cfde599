import type { Analysis, Part, ResultUnit, StatedAs } from '../../chemistry';
import {
  findSubstance,
  molarMass,
  partsOf,
  ratiosOfAnalysis,
  RESULT_UNITS,
  statedAsOf,
} from '../../chemistry';
import type { Content } from '../../determination';
import { MOLARITY, PlainDetermination, solutionOf } from '../../determination';
import type { Expression } from '../../measurement';
import { commonInput, decimalText, exact, UNITS, ZERO } from '../../measurement';
import { nominalMolPerL } from '../../reagent';
import type { SampleState, SampleRequest, Stated } from '../../sample';
import { requestFor } from '../../sample';
import type {
  AnalysisReferences,
  Portioning,
  RunSample,
  StandardizationReferences,
  StatedAnalysis,
} from './references';
import { isAnalysis, takesWholeUnits } from './references';

/** What a run finds out. */
interface Sought {
  /** As what it is stated, and in which unit. */
  readonly as: Content;
  /** In the words of the measurement equation. */
  readonly name: string;
  readonly symbol: string;
  /** What it should come to, in that unit. */
  readonly expected: number;
  /** It may be so far off, relative; null where the house rule says how far a label is believed. */
  readonly believedWithin: number | null;
}

/** What somebody expects of a sample is believed so far; what such samples usually hold, so far. Relative. */
const BELIEVED = { expected: 0.2, usual: 0.6 } as const;

/**
 * What the records of a run, or of a series of it, seek. Nothing else asks of what it is: forecast, plan, model, judgement and
 * explanation take it from here.
 *
 * @throws RangeError for a bottle without a molarity, which a run cannot begin with, and for several samples at once
 */
export function soughtOf(
  references:
    | Pick<StandardizationReferences, 'bottle'>
    | Pick<AnalysisReferences, 'method' | 'samples' | 'portioning'>,
): Sought {
  if (isAnalysis(references)) return contentSought(references);
  const { bottle } = references;
  return {
    as: MOLARITY,
    name: 'molarity of the titrant',
    symbol: `c_${findSubstance(bottle.substanceId, bottle.own)?.shortName ?? 'titrant'}`,
    expected: nominalMolPerL(bottle),
    believedWithin: null,
  };
}

/** The one sample of a series. @throws RangeError where a run has several, of which each has its own result */
export function sampleOf({ samples }: Pick<AnalysisReferences, 'samples'>): RunSample {
  const [sample] = samples;
  if (!sample || samples.length > 1) throw new RangeError('a batch has as many results as samples');
  return sample;
}

/** What records say of one part of what their sample holds, in the place of the whole. Nothing is known of how well a part is repeated. */
export function ofPart(references: AnalysisReferences, part: Part): AnalysisReferences {
  const { performance, ...analysis } = references.method;
  const usual = likewise(part.statedAs, references.method, sampleOf(references).state);
  const method = { ...analysis, part, statedAs: usual ? [usual, ...part.statedAs] : [] };
  if (!performance) return { ...references, method };
  const { methodUncertaintyPercent } = performance;
  return {
    ...references,
    method: {
      ...method,
      performance: {
        methodUncertaintyPercent,
        ...{ repeatabilityPercent: null, detectionLimit: null, quantificationLimit: null },
      },
    },
  };
}

/** The part that a sample was asked for by an analysis; null for the whole. */
export function partAsked(
  analysis: Analysis,
  { sample }: Pick<SampleState, 'sample'>,
): Part | null {
  const id = requestFor(sample, analysis.id)?.part;
  return partsOf(analysis).find((part) => part.id === id) ?? null;
}

/**
 * As what and in which unit a sample is reported by an analysis: as it was asked for, else as is usual. What was asked of a part is not
 * asked of the whole; the base or acid of the one is that of the other.
 */
export function statedBy(
  analysis: StatedAnalysis,
  { sample }: Pick<SampleState, 'sample'>,
): Pick<SampleRequest, 'unit' | 'expected' | 'requirement'> & {
  readonly as: StatedAs | null;
  readonly onDryMatter: boolean;
} {
  const request = requestFor(sample, analysis.id);
  const common = {
    unit: request?.unit ?? analysis.units[0] ?? 'mol/L',
    onDryMatter: request?.onDryMatter === true,
  };
  const asked = partAsked(analysis, { sample });
  if (request && asked?.id === analysis.part?.id) {
    const { expected, requirement } = request;
    return { ...common, as: statedAsOf(analysis, request.as), expected, requirement };
  }
  const as = analysis.part
    ? statedAsOf(analysis, null)
    : likewise(analysis.statedAs, analysis, { sample });
  return { ...common, as, expected: null, requirement: { kind: 'none' } };
}

/** As what the rest is stated beside what was asked for: sodium carbonate beside sodium hydroxide, as they stand in the same order. */
function likewise(
  among: readonly StatedAs[],
  analysis: Analysis,
  sample: Pick<SampleState, 'sample'>,
): StatedAs | null {
  const formula = requestFor(sample.sample, analysis.id)?.as;
  const asked = partAsked(analysis, sample) ?? analysis;
  const place = asked.statedAs.findIndex((one) => one.formula === formula);
  return among[place] ?? among[0] ?? null;
}

function contentSought({
  method,
  ...series
}: Pick<AnalysisReferences, 'method' | 'samples' | 'portioning'>): Sought {
  const { state } = sampleOf(series);
  const { unit, as, expected } = statedBy(method, state);
  const { portioning } = series;
  const content = contentOf(method, state, unit, as, portioning);
  return {
    as: content,
    name: as ? `content of ${as.name}` : 'equivalent mass of the acid',
    symbol: SYMBOLS[RESULT_UNITS[unit].quantity],
    expected:
      expected === null ? usualContent(method, state, content, as, portioning) : Number(expected),
    believedWithin: expected === null ? BELIEVED.usual : BELIEVED.expected,
  };
}

/** As IUPAC writes them. */
const SYMBOLS = {
  molarity: 'c',
  equivalents: 'c_eq',
  'mass-concentration': 'γ',
  'mass-fraction': 'w',
  'volume-fraction': 'φ',
  'mass-per-unit': 'm_unit',
  'equivalent-mass': 'M_eq',
} as const;

/** A content in a unit, with what that needs of the sample and of what it is stated as. */
function contentOf(
  analysis: Analysis,
  sample: SampleState,
  key: ResultUnit,
  as: StatedAs | null,
  portioning: Portioning,
): Content {
  const { quantity, unit } = RESULT_UNITS[key];
  const mass = (): Expression =>
    exact(molarMass(givenOf(as, 'formula')).valueGPerMol, UNITS.gramPerMole);
  switch (quantity) {
    case 'molarity':
      return { statedAs: 'molarity', unit };
    case 'equivalents':
      return {
        statedAs: 'equivalents',
        unit,
        equivalents: exact(ratiosOfAnalysis(analysis, as).equivalents),
      };
    case 'mass-concentration':
      return { statedAs: 'mass-concentration', unit, molarMass: mass() };
    case 'mass-fraction':
      return {
        ...{ statedAs: 'mass-fraction', unit, molarMass: mass() },
        ...(portioning.kind === 'weighed' ? {} : { density: statedInput(sample, 'density') }),
        ...(statedBy(analysis, sample).onDryMatter
          ? { dryMatter: statedInput(sample, 'dryMatter') }
          : {}),
      };
    case 'volume-fraction':
      return {
        ...{ statedAs: 'volume-fraction', unit, molarMass: mass() },
        pureDensity: exact(givenOf(as, 'densityGPerMl'), GRAM_PER_ML),
      };
    case 'mass-per-unit':
      return {
        ...{ statedAs: 'mass-per-unit', unit, molarMass: mass() },
        ...(takesWholeUnits(portioning) ? {} : { unitMass: statedInput(sample, 'unitMass') }),
      };
    case 'equivalent-mass':
      return { statedAs: 'equivalent-mass', unit, equivalents: exact(1) };
  }
}

/** What the catalogue gives of what an analysis is stated as. @throws RangeError where it gives nothing */
function givenOf<K extends keyof StatedAs>(as: StatedAs | null, key: K): NonNullable<StatedAs[K]> {
  const given = as?.[key] ?? null;
  if (given === null) throw new RangeError(`the catalogue gives no ${key}`);
  return given;
}

const GRAM_PER_ML = { ...UNITS.gramPerLitre, symbol: 'g/mL', toCoherent: 1000 };

const OF_SAMPLE = {
  density: { symbol: 'ρ', name: 'density of the sample', effect: 'Density', unit: GRAM_PER_ML },
  unitMass: { symbol: 'm̄', name: 'mean mass of one', effect: 'Mass of one', unit: UNITS.gram },
  dryMatter: {
    ...{ symbol: 'w_dry', name: 'dry matter of the sample', effect: 'Dry matter' },
    unit: RESULT_UNITS['% m/m'].unit,
  },
} as const;

/** A quantity that was stated of a sample, the same in all flasks of it. */
function statedInput(
  { id, version, sample }: SampleState,
  key: keyof typeof OF_SAMPLE,
): Expression {
  const stated: Stated | null = sample[key] ?? null;
  if (!stated) throw new RangeError(`the ${key} of sample ${sample.code} is not stated`);
  return commonInput({
    ...OF_SAMPLE[key],
    id: `sample:${id}/${key}@${String(version)}`,
    value: Number(stated.value),
    components: [
      { name: 'as stated, 95 %', distribution: 'normal', halfWidth: Number(stated.plusMinus) },
    ],
    source: `sample ${sample.code}`,
  });
}

/** Near enough for a plan, where a usual content goes by something that nobody stated: g/mL, g. */
const NEAR_ENOUGH: Readonly<Record<keyof typeof OF_SAMPLE, string>> = {
  density: '1',
  unitMass: '0.5',
  dryMatter: '100',
};

/** What one unit of a sample weighs, g: as stated, or near enough for a plan. */
export function unitMassG({ sample: { unitMass } }: Pick<SampleState, 'sample'>): number {
  return Number(unitMass?.value ?? NEAR_ENOUGH.unitMass);
}

/** A sample with what is not stated of it taken near enough. */
function roughly({ sample, ...state }: SampleState): SampleState {
  const { density, unitMass, dryMatter } = sample;
  const near = (key: keyof typeof OF_SAMPLE): Stated => ({
    value: decimalText(NEAR_ENOUGH[key]),
    plusMinus: ZERO,
  });
  return {
    ...state,
    sample: {
      ...sample,
      density: density ?? near('density'),
      unitMass: unitMass ?? near('unitMass'),
      dryMatter: dryMatter ?? near('dryMatter'),
    },
  };
}

/** A content in the usual unit of an analysis, in the one in which its sample is stated. */
export function contentFromUsual(
  { method, ...series }: Pick<AnalysisReferences, 'method' | 'samples' | 'portioning'>,
  usual: number,
): number {
  const { state } = sampleOf(series);
  const { unit, as } = statedBy(method, state);
  const { portioning } = series;
  const content = contentOf(method, state, unit, as, portioning);
  return usualContent(method, state, content, as, portioning, usual);
}

/** What such samples usually hold, in another unit than the usual one: by way of the amount in a portion. */
function usualContent(
  analysis: Analysis,
  sample: SampleState,
  wanted: Content,
  as: StatedAs | null,
  portioning: Portioning,
  inUsualUnit = analysis.typical,
): number {
  const [usualUnit = 'mol/L'] = analysis.units;
  const usualAs = statedAsOf(analysis, null);
  const counted = (content: Content, stated: StatedAs | null): PlainDetermination =>
    new PlainDetermination({
      ...{ soughtIn: 'flask', sought: content, known: solutionOf(0.1), dilutions: [] },
      soughtPerKnown: exact(ratiosOfAnalysis(analysis, stated).perTitrant),
      ...{ blank: { kind: 'none' }, excess: null },
    });
  const usual = counted(
    contentOf(analysis, roughly(sample), usualUnit, usualAs, portioning),
    usualAs,
  );
  const amount = takesWholeUnits(portioning) ? unitMassG(sample) : 1;
  return counted(wanted, as).found(amount, usual.titreMl(amount, inUsualUnit));
}
