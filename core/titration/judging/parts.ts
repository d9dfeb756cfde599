import type { Part } from '../../chemistry';
import type { Evaluation, Expression, WorkingStep } from '../../measurement';
import { correlationsIn, evaluate, input, plus, propagate, sum, working } from '../../measurement';
import type { Held } from '../../sample';
import { summarize } from '../../statistics';
import { isSeenInScatter, measurementModel } from '../figures';
import type { AnalysisRun, Flask } from '../run';
import { sampleIdOf } from '../run';
import { ofPart, partAsked, sampleOf, soughtOf } from '../setUp';
import type { Found } from './found';
import { contentText, foundIn, heldAs } from './found';
import type { JudgedSeries, Judgement } from './judge';
import { unitsText } from './units';

/** What was found of one part of what a sample holds. */
export interface FoundPart {
  readonly part: Part;
  /** The series as it is about that part. */
  readonly series: AnalysisRun;
  readonly found: Found;
  readonly working: readonly WorkingStep[];
}

/** What two ends tell beside the whole. */
export interface FoundParts {
  readonly always: readonly FoundPart[];
  /** Every case that may hold: no part of it is less than nothing by more than its U. Several where the ends do not tell them apart. */
  readonly cases: readonly (readonly FoundPart[])[];
}

const NONE: FoundParts = { always: [], cases: [] };

/** No repeatability of its own: it is an input beside the mean, so that a part near zero has one too. */
const COUNTED_BESIDE = {
  relativeStandardUncertainty: 0,
  degreesOfFreedom: Number.POSITIVE_INFINITY,
  source: 'counted beside the mean',
};

/** A judgement never changes, and pages and documents ask for its parts many times. */
const FOUND = new WeakMap<Judgement, FoundParts>();

/** What the titrations that count tell of the parts of a sample. */
export function partsFound(series: AnalysisRun, judgement: Judgement): FoundParts {
  const known = FOUND.get(judgement);
  if (known) return known;
  const parts = partsIn(series, judgement);
  FOUND.set(judgement, parts);
  return parts;
}

function partsIn(series: AnalysisRun, { replicates }: Judgement): FoundParts {
  const { twoEnds } = series.references.method;
  const flasks = replicates.flatMap(({ verdict, flask }) =>
    verdict === 'counts' && flask.firstEnd ? [flask] : [],
  );
  if (!twoEnds || flasks.length === 0) return NONE;
  const found = (part: Part): FoundPart => partFound(series, part, flasks);
  return {
    always: twoEnds.always.map(found),
    cases: twoEnds.cases.map((parts) => parts.map(found)).filter(mayHold),
  };
}

function mayHold(parts: readonly FoundPart[]): boolean {
  return parts.every(({ found }) => found.value >= -found.expandedUncertainty);
}

function partFound(whole: AnalysisRun, part: Part, flasks: readonly Flask[]): FoundPart {
  const series = { ...whole, references: ofPart(whole.references, part) };
  const { evaluation, model } = evaluated(series, flasks);
  return { part, series, found: foundIn(series, { evaluation }), working: working(model) };
}

/**
 * A part from the flasks in which it was titrated. How well they repeat it is what their inputs allow, or their scatter where that is
 * more; as an amount, for a part may be nothing. Source: as for the whole, JCGM 100:2008, 4.2.3.
 */
function evaluated(
  series: AnalysisRun,
  flasks: readonly Flask[],
): { readonly evaluation: Evaluation; readonly model: Expression } {
  const { unit } = soughtOf(series.references).as;
  const mean = measurementModel(series, flasks, COUNTED_BESIDE);
  const coverage = series.setUp.rules.coverage === 'two' ? { coverageFactor: 2 } : {};
  const varying = propagate(mean, unit, { isMuted: ({ variation }) => variation === 'common' });
  const n = flasks.length;
  const each = flasks.map((flask) =>
    evaluate(measurementModel(series, [flask], COUNTED_BESIDE), unit),
  );
  const scatter = (summarize(each)?.sampleSd ?? 0) / Math.sqrt(n);
  if (scatter <= varying.combinedStandardUncertainty) {
    const correlations = correlationsIn(mean);
    return { evaluation: propagate(mean, unit, { correlations, ...coverage }), model: mean };
  }
  const repeated = input({
    id: `run:${[series.id, sampleIdOf(series)].filter(Boolean).join('/')}/${series.references.method.part?.id ?? ''}/repeatability`,
    symbol: 'δx_rep',
    name: 'repeatability of the mean',
    effect: 'Repeatability',
    value: 0,
    unit,
    components: [
      {
        ...{ name: 'scatter', standardUncertainty: scatter, distribution: 'student' },
        degreesOfFreedom: n - 1,
      },
    ],
    degreesOfFreedom: n - 1,
    source: `scatter of ${String(n)} titrations`,
    variation: 'common',
  });
  const model = sum([plus(mean), plus(repeated)]);
  const evaluation = propagate(model, unit, {
    ...{ correlations: correlationsIn(model), isMuted: isSeenInScatter },
    ...coverage,
  });
  return { evaluation, model };
}

/** What was found of a sample, in a line: the whole, its parts where two ends tell them, and how single units differ. */
export function statedText(
  { series, judgement }: JudgedSeries,
  found: Found,
  { always, cases }: FoundParts,
): string {
  const said = cases.map((parts) => parts.map(partText).join(', '));
  const units = unitsText(series, judgement) ?? '';
  return [wholeText(series, found), ...always.map(partText), said.join('; or '), units]
    .filter((text) => text !== '')
    .join('; ');
}

/** What was asked for, in a few words: the part, else the whole. */
export function answerText(series: AnalysisRun, found: Found, parts: FoundParts): string {
  const one = partAnswering(series, parts);
  return one ? partText(one) : wholeText(series, found);
}

function partText({ part, series, found }: FoundPart): string {
  return `${part.name} ${contentText(series, found)}`;
}

function wholeText(series: AnalysisRun, found: Found): string {
  const isOfTwoEnds = series.references.method.twoEnds !== undefined;
  return `${isOfTwoEnds ? 'in all ' : ''}${contentText(series, found)}`;
}

/** What was found of the part that was asked for; undefined where the whole was, and where no case has it. */
function partAnswering(
  { references }: AnalysisRun,
  { always, cases }: FoundParts,
): FoundPart | undefined {
  const asked = partAsked(references.method, sampleOf(references).state);
  return [...always, ...cases.flat()].find(({ part }) => part.id === asked?.id);
}

/** What is said of a sample by what it is held against: of the part that was asked for, else of the whole; null where nothing is. */
export function heldOf(series: AnalysisRun, found: Found, parts: FoundParts): Held | null {
  const asked = partAsked(series.references.method, sampleOf(series.references).state);
  if (!asked) return heldAs(series, found);
  const one = partAnswering(series, parts);
  const held = one ? heldAs(one.series, one.found) : null;
  return held && { ...held, text: `${held.text} (${asked.name})` };
}
