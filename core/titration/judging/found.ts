import type { RoundedResult } from '../../measurement';
import {
  coverageFactorFor,
  figureText,
  roundHalfEven,
  roundToUncertainty,
} from '../../measurement';
import type { Held, Measured } from '../../sample';
import { holdAgainst } from '../../sample';
import type { AnalysisRun } from '../run';
import { contentFromUsual, sampleOf, soughtOf, statedBy } from '../setUp';
import type { Result } from './judge';

/** Whether there is enough of what was sought to say how much. */
export const DETECTIONS = ['quantified', 'below-quantification', 'below-detection'] as const;
type Detection = (typeof DETECTIONS)[number];

/** What was found of a sample: the titration of its portion, and what the laboratory knows of the method beside it. */
export interface Found extends Measured {
  readonly coverageFactor: number;
  readonly rounded: RoundedResult;
  /** Of the titration of the test portion. */
  readonly titrationUncertainty: number;
  /** Of the method; null where the laboratory has not entered its own data. */
  readonly methodUncertainty: number | null;
  readonly detection: Detection;
  /** Of the analysis, in the unit of the result; null where none is known. */
  readonly limits: { readonly detection: number | null; readonly quantification: number | null };
}

/**
 * What a series found: u² = u²(titration) + u²(method). The method's is known from long-term data, so that it limits no degrees of
 * freedom; those of the titration count by Welch and Satterthwaite. Source: ISO 11352:2012, 8; JCGM 100:2008, G.4.
 */
export function foundIn(
  { references, setUp }: AnalysisRun,
  { evaluation }: Pick<Result, 'evaluation'>,
): Found {
  const { value, combinedStandardUncertainty: titrationUncertainty } = evaluation;
  const percent = methodUncertaintyPercent(references);
  const methodUncertainty = percent === null ? null : (Math.abs(value) * percent) / 100;
  const standardUncertainty = Math.hypot(titrationUncertainty, methodUncertainty ?? 0);
  const degreesOfFreedom =
    evaluation.effectiveDegreesOfFreedom * (standardUncertainty / titrationUncertainty) ** 4;
  const coverageFactor = setUp.rules.coverage === 'two' ? 2 : coverageFactorFor(degreesOfFreedom);
  const expandedUncertainty = coverageFactor * standardUncertainty;
  const { detectionLimit = null, quantificationLimit = null } = references.method.performance ?? {};
  const limitOf = (usual: number | null) => usual && contentFromUsual(references, usual);
  const limits = {
    detection: limitOf(detectionLimit),
    quantification: limitOf(quantificationLimit),
  };
  return {
    value,
    standardUncertainty,
    expandedUncertainty,
    degreesOfFreedom,
    coverageFactor,
    rounded: roundToUncertainty(value, expandedUncertainty),
    titrationUncertainty,
    methodUncertainty,
    detection: detectionOf(value, limits),
    limits,
  };
}

function methodUncertaintyPercent({
  method,
}: Pick<AnalysisRun['references'], 'method'>): number | null {
  return method.performance?.methodUncertaintyPercent ?? null;
}

function detectionOf(value: number, { detection, quantification }: Found['limits']): Detection {
  if (detection !== null && value < detection) return 'below-detection';
  return quantification !== null && value < quantification ? 'below-quantification' : 'quantified';
}

/** A content in a line: `6.20 ± 0.06 g/L as tartaric acid (k = 2.00)`, or that there is too little of it. */
export function contentText({ references }: AnalysisRun, found: Found): string {
  const { as, onDryMatter } = statedBy(references.method, sampleOf(references).state);
  const unit = `${soughtOf(references).as.unit.symbol}${as ? ` as ${as.name}` : ''}${onDryMatter ? ' in dry matter' : ''}`;
  const limit = (value: number | null): string =>
    value === null ? '' : figureText(roundToUncertainty(value, value / 10).value);
  switch (found.detection) {
    case 'below-detection':
      return `< LOD (${limit(found.limits.detection)} ${unit})`;
    case 'below-quantification':
      return `detected, < LOQ (${limit(found.limits.quantification)} ${unit})`;
    case 'quantified': {
      const { rounded, coverageFactor } = found;
      const k = figureText(roundHalfEven(coverageFactor, 2));
      return `${figureText(rounded.value)} ± ${figureText(rounded.uncertainty)} ${unit} (k = ${k})`;
    }
  }
}

/** Protons of an acid that a bench may meet, at most: citric acid has three. */
const MOST_PROTONS = 4;

/** What an acid of unknown kind may have for a molar mass: its equivalent mass times its protons, g/mol. Empty for other results. */
export function molarMassCandidates(
  { references }: Pick<AnalysisRun, 'references'>,
  { value, expandedUncertainty }: Found,
): readonly (RoundedResult & { readonly protons: number })[] {
  if (soughtOf(references).as.statedAs !== 'equivalent-mass') return [];
  return Array.from({ length: MOST_PROTONS }, (_, i) => {
    const protons = i + 1;
    return { protons, ...roundToUncertainty(protons * value, protons * expandedUncertainty) };
  });
}

/** What U covers, in a sentence. */
export function coverageText({ references }: Pick<AnalysisRun, 'references'>): string {
  return methodUncertaintyPercent(references) === null
    ? 'U covers the titration of the test portion only: not sampling, homogeneity or a bias of the method.'
    : 'U covers the titration and, from the laboratory’s own long-term data, the method: not sampling.';
}

/** What is said of a content by what it is held against, as it was agreed; null where nothing is. */
export function heldAs({ references }: AnalysisRun, found: Found): Held | null {
  return holdAgainst(statedBy(references.method, sampleOf(references).state).requirement, found);
}
