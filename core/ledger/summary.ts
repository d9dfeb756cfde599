import type { DecimalText } from '../measurement';
import { netMassG } from '../metrology';
import type { Certificate, RunState } from '../titration';
import { judgeRun, nextStep, titrantTakenMl, titreMl } from '../titration';

/** A run as lists show it. */
export interface RunSummary {
  readonly id: string;
  readonly version: number;
  readonly bottleId: string;
  readonly status: RunState['status'];
  readonly startedBy: string;
  readonly startedAt: string;
  readonly closedAt: string | null;
  readonly titrationsMade: number;
  readonly titrantTakenMl: number;
  /** Of the lot of standard, in all flasks, void ones too. */
  readonly standardTakenG: number;
  /** Unrounded mean of what counts so far, mol/L. */
  readonly molarity: number | null;
  readonly next: string;
  readonly certificateNumber: string | null;
  readonly standardLotId: string;
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
    titrantTakenMl: titrantTakenMl(run),
    standardTakenG: run.flasks.reduce(
      (total, { weighing }) => total + Number(netMassG(weighing.value)),
      0,
    ),
    molarity: judgement.averaged?.mean ?? null,
    next: nextStep(run, judgement).sentence,
    certificateNumber: certificate?.number ?? null,
    standardLotId: run.setUp.lot.id,
    temperatureC: run.setUp.temperatureC,
  };
}
