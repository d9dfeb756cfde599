import * as v from 'valibot';
import { upcast } from '#core/ledger';
import { Unanswerable } from '#core/problem';
import type { CertifiedFigures } from '#core/titration/judging';
import { certifiedFigures, comesToTheSame, judgeRun, SAME_WITHIN } from '#core/titration/judging';
import type { RunFact } from '#core/titration/record';
import { foldRun } from '#core/titration/record';
import { certificateFileSchema } from '#contract';
import { compare } from './compare';
import type { Json } from './tasks/task';

/** What becomes of a certificate's file that is computed again. */
export type Reproduced =
  | { readonly kind: 'identical'; readonly compared: number }
  /** Where it differs: what the file has there, and what its entries come to. */
  | { readonly kind: 'different'; readonly places: readonly string[] }
  | { readonly kind: 'refused'; readonly sentence: string };

/** Computes a certificate again from the entries in its file, and compares every figure. */
export function reproduce(file: unknown): Reproduced {
  const parsed = v.safeParse(certificateFileSchema, file);
  if (!parsed.success) {
    const [issue] = parsed.issues;
    return { kind: 'refused', sentence: `${v.getDotPath(issue) ?? 'the file'}: ${issue.message}` };
  }
  const { certificate, figures, source } = parsed.output;
  try {
    // An earlier version of the program may have kept the file; its facts are a run's, whatever their shape.
    const run = foldRun(source.facts.map(upcast) as RunFact[], source.references);
    const judgement = run && judgeRun(run);
    if (!run || !judgement?.result) {
      return { kind: 'refused', sentence: 'Its entries come to no result.' };
    }
    const again = certifiedFigures(run, judgement);
    const compared = compare(named(figures), named(again), { relative: SAME_WITHIN });
    const places = compared
      .filter(({ isWithin }) => !isWithin)
      .map(
        ({ path, expected, got }) =>
          `figures.${path}: the file has ${JSON.stringify(expected)}, its entries come to ${JSON.stringify(got)}`,
      );
    const { rounded, evaluation } = judgement.result;
    const stated = { molarity: rounded.value, expandedUncertainty: rounded.uncertainty };
    const misstated = Object.entries(stated)
      .filter(([key, value]) => certificate[key as keyof typeof stated] !== value)
      .map(
        ([key, value]) =>
          `certificate.${key}: the file has "${certificate[key as keyof typeof stated]}", its entries come to "${value}"`,
      );
    const isUnroundedSame = comesToTheSame(certificate, evaluation);
    const differences = [
      ...misstated,
      ...(isUnroundedSame || misstated.length > 0
        ? []
        : ['certificate.unrounded: its entries come to other figures']),
      ...places,
    ];
    return differences.length === 0
      ? { kind: 'identical', compared: compared.length }
      : { kind: 'different', places: differences };
  } catch (error) {
    if (error instanceof Unanswerable) return { kind: 'refused', sentence: error.message };
    throw error;
  }
}

/** The figures with their flasks and inputs by name, so that a place says which one it is. */
function named({ molarity, replicates, budget }: CertifiedFigures): Json {
  const flasks = replicates.map((one) => [`flask ${String(one.flask)}`, one] as const);
  const inputs = budget.map((line) => [line.input, line] as const);
  return JSON.parse(
    JSON.stringify({
      molarity,
      replicates: Object.fromEntries(flasks),
      budget: Object.fromEntries(inputs),
    }),
  ) as Json;
}
