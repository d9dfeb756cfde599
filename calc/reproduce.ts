import * as v from 'valibot';
import { upcast } from '#core/ledger';
import { Unanswerable } from '#core/problem';
import type { Figures } from '#core/titration/judging';
import {
  certifiedFigures,
  comesToTheSame,
  foundIn,
  judgedSeries,
  judgeRun,
  partsFound,
  reportedFigures,
  reportedParts,
  SAME_WITHIN,
} from '#core/titration/judging';
import type { RunFact } from '#core/titration/record';
import { foldRun } from '#core/titration/record';
import type { RunState } from '#core/titration/run';
import { isAnalysisRun } from '#core/titration/run';
import type { CertificateFile, ReportFile, RunAnswer } from '#contract';
import { certificateFileSchema, reportFileSchema } from '#contract';
import { compare } from './compare';
import type { Json } from './tasks/task';

/** What becomes of a file that was issued and is computed again. */
export type Reproduced =
  | { readonly kind: 'identical'; readonly compared: number }
  /** Where it differs: what the file has there, and what its entries come to. */
  | { readonly kind: 'different'; readonly places: readonly string[] }
  | { readonly kind: 'refused'; readonly sentence: string };

const fileSchema = v.variant('format', [certificateFileSchema, reportFileSchema]);

/** Computes a certificate or a report again from the entries in its file, and compares every figure. */
export function reproduce(file: unknown): Reproduced {
  const parsed = v.safeParse(fileSchema, file);
  if (!parsed.success) {
    const [issue] = parsed.issues;
    return { kind: 'refused', sentence: `${v.getDotPath(issue) ?? 'the file'}: ${issue.message}` };
  }
  try {
    const { output } = parsed;
    return output.format === 'vine-measure-report' ? ofReport(output) : ofCertificate(output);
  } catch (error) {
    if (error instanceof Unanswerable) return { kind: 'refused', sentence: error.message };
    throw error;
  }
}

/** An earlier version of the program may have kept the file; its facts are a run's, whatever their shape. */
function runOf({ facts, references }: RunAnswer): RunState | null {
  return foldRun(facts.map(upcast) as RunFact[], references);
}

const NO_RESULT: Reproduced = { kind: 'refused', sentence: 'Its entries come to no result.' };

function ofCertificate({ certificate, figures, source }: CertificateFile): Reproduced {
  const run = runOf(source);
  const judgement = run && judgeRun(run);
  if (!judgement?.result) return NO_RESULT;
  const { molarity, replicates, budget } = certifiedFigures(judgement);
  const { compared, places } = comparedPlaces(
    'figures',
    { molarity: figures.molarity, ...named(figures.replicates, figures.budget) },
    { molarity, ...named(replicates, budget) },
  );
  const { rounded, evaluation } = judgement.result;
  const misstated = misstatedPlaces('certificate', certificate, {
    molarity: rounded.value,
    expandedUncertainty: rounded.uncertainty,
  });
  const isUnroundedSame = comesToTheSame(certificate, evaluation);
  return outcome(compared, [
    ...misstated,
    ...(isUnroundedSame || misstated.length > 0
      ? []
      : ['certificate.unrounded: its entries come to other figures']),
    ...places,
  ]);
}

function ofReport({ report, figures, source }: ReportFile): Reproduced {
  const run = runOf(source);
  if (!run || !isAnalysisRun(run)) return NO_RESULT;
  const byCode = (all: readonly (Figures & { readonly sampleId: string })[]) =>
    Object.fromEntries(
      all.map(({ sampleId, result, replicates, budget }) => [
        sampleId,
        { result, ...named(replicates, budget) },
      ]),
    );
  const { compared, places } = comparedPlaces(
    'figures',
    byCode(figures),
    byCode(reportedFigures(run)),
  );
  const found = judgedSeries(run).flatMap(({ series, judgement }) => {
    const { result } = judgement;
    const parts = reportedParts(partsFound(series, judgement));
    return result ? [{ ...foundIn(series, result), parts }] : [];
  });
  const misstated = report.results.flatMap((stated, i) => {
    const result = found[i];
    const where = `report.results.${String(i)}`;
    if (!result) return [`${where}: its entries come to no result`];
    const { value, uncertainty } = result.rounded;
    return [
      ...misstatedPlaces(where, stated, { value, expandedUncertainty: uncertainty }),
      ...comparedPlaces(`${where}.parts`, byPlace(stated.parts ?? []), byPlace(result.parts))
        .places,
    ];
  });
  return outcome(compared, [...misstated, ...places]);
}

/** By what they are called and where they stand: a carbonate may stand in each of two cases. */
function byPlace(parts: readonly { readonly part: string }[]): object {
  return Object.fromEntries(parts.map((one, i) => [`${String(i + 1)} ${one.part}`, one]));
}

function outcome(compared: number, places: readonly string[]): Reproduced {
  return places.length === 0 ? { kind: 'identical', compared } : { kind: 'different', places };
}

/** Where figures differ by more than the last bits of a double. */
function comparedPlaces(
  where: string,
  inFile: object,
  again: object,
): { readonly compared: number; readonly places: readonly string[] } {
  const compared = compare(asJson(inFile), asJson(again), { relative: SAME_WITHIN });
  return {
    compared: compared.length,
    places: compared
      .filter(({ isWithin }) => !isWithin)
      .map(
        ({ path, expected, got }) =>
          `${where}.${path}: the file has ${JSON.stringify(expected)}, its entries come to ${JSON.stringify(got)}`,
      ),
  };
}

/** What is stated otherwise than its entries come to. */
function misstatedPlaces<Stated extends Readonly<Record<string, string>>>(
  where: string,
  inFile: Readonly<Record<keyof Stated, string>>,
  again: Stated,
): readonly string[] {
  return Object.entries(again)
    .filter(([key, value]) => inFile[key] !== value)
    .map(
      ([key, value]) =>
        `${where}.${key}: the file has "${inFile[key] ?? ''}", its entries come to "${value}"`,
    );
}

/** Flasks and inputs by name, so that a place says which one it is. */
function named(
  replicates: readonly { readonly flask: number }[],
  budget: readonly { readonly input: string }[],
) {
  return {
    replicates: Object.fromEntries(
      replicates.map((one) => [`flask ${String(one.flask)}`, one] as const),
    ),
    budget: Object.fromEntries(budget.map((line) => [line.input, line] as const)),
  };
}

function asJson(figures: object): Json {
  return JSON.parse(JSON.stringify(figures)) as Json;
}
