import type { LabelSheet } from '#core/label';
import type { PrintedLabel } from './pdf';
import { labelsPdf } from './pdf';

/** Labels to be printed: what crosses into the worker. */
export interface LabelsTask {
  readonly labels: readonly PrintedLabel[];
  readonly sheet: LabelSheet;
  readonly startAt: number;
}

/** Runs in a thread of its own, so that nobody waits for a PDF but who asked for it. */
export default function makePdf({ labels, sheet, startAt }: LabelsTask): Promise<Uint8Array> {
  return labelsPdf(labels, sheet, startAt);
}
