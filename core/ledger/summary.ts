import type { Id } from '../grammar';
import type { DecimalText } from '../measurement';
import type { Certificate, RunState } from '../titration';
import { judgeRun, nextStep, takenBy, titreMl } from '../titration';

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
  /** From each lot (g) and bottle (mL), void flasks too. */
  readonly taken: ReturnType<typeof takenBy>;
  /** Unrounded mean of what counts so far, mol/L. */
  readonly molarity: number | null;
  readonly next: string;
  readonly certificateNumber: string | null;
  readonly temperatureC: DecimalText;
}

/** Summarizes a run for lists. */
export function summarizeRun(run: RunState): RunSummary {
  const judgement = judgeRun(run);
  const certificate: Certificate | null = run.certificate;
  return {
    id: run.id,
    version: run.version,
    bottleId: run.setUp.bottle.id,
    status: run.status,
    startedBy: run.started.by,
    startedAt: run.started.at,
    closedAt: run.closed?.at ?? null,
    titrationsMade: run.flasks.filter((flask) => titreMl(flask) !== null).length,
    taken: takenBy(run),
    molarity: judgement.averaged?.mean ?? null,
    next: nextStep(run, judgement).sentence,
    certificateNumber: certificate?.number ?? null,
    temperatureC: run.setUp.temperatureC,
  };
}
