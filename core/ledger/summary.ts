import type { Id } from '../grammar';
import type { DecimalText } from '../measurement';
import type { Listing, Taken } from '../record';
import { lasting } from '../record';
import { nextStep, workedOn } from '../titration/guidance';
import type { Judgement, SeriesScatter } from '../titration/judging';
import { judgeRun, scatterOf, signedSoFar } from '../titration/judging';
import type { Certificate, RunState, SignatureMeaning } from '../titration/run';
import {
  isAnalysisRun,
  isStandardization,
  openReturn,
  seriesOf,
  takenBy,
  titreMl,
} from '../titration/run';
import { bottleIdOf, isAnalysis, sampleOf, soughtOf } from '../titration/setUp';
import type { StepSaid } from '../wording';

/** A run as lists show it. */
export interface RunSummary {
  readonly id: Id;
  readonly version: number;
  readonly bottleId: Id;
  readonly status: RunState['status'];
  readonly startedBy: string;
  readonly startedAt: string;
  readonly closedAt: string | null;
  readonly titrationsMade: number;
  /** As what it has been signed while it waits for the next signature. */
  readonly signed: readonly SignatureMeaning[];
  /** Whether it was given back, and nobody has answered yet. */
  readonly isReturned: boolean;
  /** From each lot (g) and bottle (mL), void flasks too. */
  readonly taken: ReturnType<typeof takenBy>;
  /** By name. */
  readonly method: string;
  /** Unrounded mean of what counts so far of a standardization, mol/L. */
  readonly molarity: number | null;
  /** Id of the analysis; null for a standardization. */
  readonly analysisId: string | null;
  /** What is analysed, and the unrounded mean of what counts so far of each; none in a standardization. */
  readonly samples: readonly {
    readonly id: Id;
    readonly code: string;
    readonly content: number | null;
    readonly unit: string;
    /** Between the highest and the lowest of what counts, where that is two or more. */
    readonly range: number | null;
  }[];
  /** `stepText` makes the sentence. */
  readonly next: StepSaid;
  /** What was certified; null before. */
  readonly certificate: Pick<
    Certificate,
    'number' | 'molarity' | 'expandedUncertainty' | 'coverageFactor'
  > | null;
  /** What was reported of its samples, and by which certificate of the titrant; null before. */
  readonly report: {
    readonly number: string;
    readonly titrantCertificate: string | null;
  } | null;
  readonly temperatureC: DecimalText;
  /** How it scattered; null while it tells nothing of that. */
  readonly scatter: SeriesScatter | null;
}

/** Summarizes a run for lists. */
export function summarizeRun(run: RunState): RunSummary {
  const judged = seriesOf(run).map((series) => ({ series, judgement: judgeRun(series) }));
  const current = workedOn(run);
  const now = judged.find(({ series }) => series === current)?.judgement ?? judgeRun(current);
  return {
    id: run.id,
    version: run.version,
    bottleId: bottleIdOf(run.setUp),
    status: run.status,
    startedBy: run.started.by,
    startedAt: run.started.at,
    closedAt: run.closed?.at ?? null,
    titrationsMade: run.flasks.filter((flask) => titreMl(flask) !== null).length,
    signed: signedSoFar(run),
    isReturned: openReturn(run) !== null,
    taken: takenBy(run),
    molarity: isStandardization(run) ? (now.averaged?.mean ?? null) : null,
    analysisId: isAnalysisRun(run) ? run.references.method.id : null,
    samples: judged.flatMap(({ series, judgement }) => sampleFound(series, judgement)),
    next: nextStep(current, now).says,
    certificate: run.certificate && statedBy(run.certificate),
    report: run.report && {
      number: run.report.number,
      titrantCertificate: run.report.titrant.certificateNumber,
    },
    method: run.references.method.name,
    temperatureC: run.setUp.temperatureC,
    scatter: isStandardization(run) ? scatterOf(run, now) : null,
  };
}

/** What of a sample has been found so far; nothing of a standardization. */
function sampleFound({ references }: RunState, { averaged }: Judgement): RunSummary['samples'] {
  if (!isAnalysis(references)) return [];
  const { id, sample } = sampleOf(references).state;
  const { unit } = soughtOf(references).as;
  const { mean = null, n = 0, range = null } = averaged ?? {};
  return [
    {
      ...{ id, code: sample.code, content: mean, unit: unit.symbol },
      range: n > 1 ? range : null,
    },
  ];
}

function statedBy(certificate: Certificate): NonNullable<RunSummary['certificate']> {
  const { number, molarity, expandedUncertainty, coverageFactor } = certificate;
  return { number, molarity, expandedUncertainty, coverageFactor };
}

/** What lists order, filter and search a run by. */
export function listedRun({
  bottleId,
  status,
  method,
  certificate,
  report,
  samples,
}: RunSummary): Listing {
  return {
    name: (certificate ?? report)?.number ?? '',
    words: [method, ...samples.map(({ code }) => code)],
    aboutId: bottleId,
    standing: lasting(status),
    atHandUntil: status === 'open' ? null : 'over',
  };
}

/** What a run has taken from its bottles and lots. */
export function takenByRun({ taken, startedAt: at }: RunSummary): readonly Taken[] {
  return taken.map((one) => ({ ...one, at }));
}
