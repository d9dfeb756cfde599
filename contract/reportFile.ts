import * as v from 'valibot';
import type { Document } from '#core/document';
import type { ReportedFigures } from '#core/titration/judging';
import type { Report } from '#core/titration/run';
import { reportAnswer, runAnswer } from './answers';
import { documentSchema, figureSchemas } from './certificateFile';
import type { SchemaOf } from './fields';
import { id } from './fields';
import type { RunAnswer } from './messages';

/**
 * A report as a file: what it states of each sample, the figures of each in SI units, and everything that was entered, so that anybody
 * computes it again (`npm run reproduce`).
 */
export interface ReportFile {
  readonly format: 'vine-measure-report';
  readonly formatVersion: 1;
  readonly report: Report;
  /** The same in words, as it is printed: of the batch, or of each sample. */
  readonly documents: readonly Document[];
  readonly figures: readonly ReportedFigures[];
  readonly source: RunAnswer;
}

export const reportFileSchema = v.strictObject({
  format: v.literal('vine-measure-report'),
  formatVersion: v.literal(1),
  report: reportAnswer,
  documents: v.array(documentSchema),
  figures: v.array(
    v.strictObject({
      sampleId: id,
      result: figureSchemas.result,
      replicates: v.array(
        v.strictObject({ ...figureSchemas.replicate, result: figureSchemas.replicateResult }),
      ),
      budget: figureSchemas.budget,
    }),
  ),
  source: runAnswer,
}) satisfies SchemaOf<ReportFile>;
