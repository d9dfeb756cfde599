import type { Id } from '../grammar';
import type { DecimalText } from '../measurement';
import type { Listing, Taken } from '../record';
import { lasting } from '../record';
import { nextStep } from '../titration/guidance';
import type { SeriesScatter } from '../titration/judging';
import { judgeRun, scatterOf, signedSoFar } from '../titration/judging';
import type { Certificate, RunState, SignatureMeaning } from '../titration/run';
import { openReturn, takenBy, titreMl } from '../titration/run';
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
  /** Unrounded mean of what counts so far, mol/L. */
  readonly molarity: number | null;
  /** `stepText` makes the sentence. */
  readonly next: StepSaid;
  /** What was certified; null before. */
  readonly certificate: Pick<
    Certificate,
    'number' | 'molarity' | 'expandedUncertainty' | 'coverageFactor'
  > | null;
  readonly temperatureC: DecimalText;
  /** How it scattered; null while it tells nothing of that. */
  readonly scatter: SeriesScatter | null;
}

/** Summarizes a run for lists. */
export function summarizeRun(run: RunState): RunSummary {
  const judgement = judgeRun(run);
  return {
    id: run.id,
    version: run.version,
    bottleId: run.setUp.bottle.id,
    status: run.status,
    startedBy: run.started.by,
    startedAt: run.started.at,
    closedAt: run.closed?.at ?? null,
    titrationsMade: run.flasks.filter((flask) => titreMl(flask) !== null).length,
    signed: signedSoFar(run, judgement),
    isReturned: openReturn(run) !== null,
    taken: takenBy(run),
    molarity: judgement.averaged?.mean ?? null,
    next: nextStep(run, judgement).says,
    certificate: run.certificate && statedBy(run.certificate),
    method: run.references.method.name,
    temperatureC: run.setUp.temperatureC,
    scatter: scatterOf(run, judgement),
  };
}

function statedBy(certificate: Certificate): NonNullable<RunSummary['certificate']> {
  const { number, molarity, expandedUncertainty, coverageFactor } = certificate;
  return { number, molarity, expandedUncertainty, coverageFactor };
}

/** What lists order, filter and search a run by. */
export function listedRun({ bottleId, status, method, certificate }: RunSummary): Listing {
  return {
    name: certificate?.number ?? '',
    words: [method],
    aboutId: bottleId,
    standing: lasting(status),
    atHandUntil: status === 'open' ? null : 'over',
  };
}

/** What a run has taken from its bottles and lots. */
export function takenByRun({ taken, startedAt: at }: RunSummary): readonly Taken[] {
  return taken.map((one) => ({ ...one, at }));
}
