import * as v from 'valibot';
import type { CertifiedFigures } from '#core/titration/judging';
import type { Certificate } from '#core/titration/run';
import { certificateAnswer, runAnswer } from './answers';
import type { RunAnswer } from './messages';
import type { SchemaOf } from './records';

const figure = v.pipe(v.number(), v.finite());
const quantity = { value: figure, unit: v.string() };

const figures = v.strictObject({
  molarity: v.strictObject({
    ...quantity,
    standardUncertainty: figure,
    expandedUncertainty: figure,
    coverageFactor: figure,
    coverageProbability: figure,
    effectiveDegreesOfFreedom: v.nullable(figure),
  }),
  replicates: v.array(
    v.strictObject({
      flask: figure,
      verdict: v.string(),
      titre: v.nullable(v.strictObject(quantity)),
      molarity: v.nullable(v.strictObject(quantity)),
    }),
  ),
  budget: v.array(
    v.strictObject({
      ...quantity,
      input: v.string(),
      name: v.string(),
      standardUncertainty: figure,
      contribution: figure,
      share: figure,
    }),
  ),
}) satisfies SchemaOf<CertifiedFigures>;

/**
 * A certificate as a file: what it states, its figures in SI units, and everything that was entered, so that anybody computes it
 * again (`npm run reproduce`).
 */
export interface CertificateFile {
  readonly format: 'vine-measure-certificate';
  readonly formatVersion: 1;
  readonly certificate: Certificate;
  readonly figures: CertifiedFigures;
  readonly source: RunAnswer;
}

export const certificateFileSchema = v.strictObject({
  format: v.literal('vine-measure-certificate'),
  formatVersion: v.literal(1),
  certificate: certificateAnswer,
  figures,
  source: runAnswer,
}) satisfies SchemaOf<CertificateFile>;
