import type { LabelSheet } from '#core/label';
import type { Picture, PrintedDocument } from './documentPdf';
import { documentPdf, picturePdf } from './documentPdf';
import type { PrintedLabel } from './labelsPdf';
import { labelsPdf } from './labelsPdf';

/** What is to be printed: it crosses into the worker. */
export type PrintTask =
  | {
      readonly kind: 'labels';
      readonly labels: readonly PrintedLabel[];
      readonly sheet: LabelSheet;
      readonly startAt: number;
    }
  | { readonly kind: 'document'; readonly printed: PrintedDocument }
  /** A picture by itself, to see whether it can be printed. */
  | { readonly kind: 'trial'; readonly picture: Picture };

/** Nothing is printed: the thread has its fonts and is ready. */
interface GettingReady {
  readonly kind: 'ready';
}

/** Runs in a thread of its own, so that nobody waits for a PDF but who asked for it. */
export default function makePdf(task: PrintTask | GettingReady): Promise<Uint8Array> {
  switch (task.kind) {
    case 'ready':
      return Promise.resolve(new Uint8Array());
    case 'labels':
      return labelsPdf(task.labels, task.sheet, task.startAt);
    case 'document':
      return documentPdf(task.printed);
    case 'trial':
      return picturePdf(task.picture);
  }
}
