import * as v from 'valibot';
import type { Document } from '#core/document';
import type { CertifiedFigures } from '#core/titration/judging';
import type { Certificate } from '#core/titration/run';
import { certificateAnswer, runAnswer } from './answers';
import type { RunAnswer } from './messages';
import type { SchemaOf } from './fields';

const figure = v.pipe(v.number(), v.finite());
const quantity = { value: figure, unit: v.string() };

const result = v.strictObject({
  ...quantity,
  standardUncertainty: figure,
  expandedUncertainty: figure,
  coverageFactor: figure,
  coverageProbability: figure,
  effectiveDegreesOfFreedom: v.nullable(figure),
});

/** The parts of the figures of whatever is issued. */
export const figureSchemas = {
  result,
  replicate: {
    flask: figure,
    verdict: v.string(),
    titre: v.nullable(v.strictObject(quantity)),
  },
  replicateResult: v.nullable(v.strictObject(quantity)),
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
};

const figures = v.strictObject({
  molarity: result,
  replicates: v.array(
    v.strictObject({
      ...figureSchemas.replicate,
      molarity: figureSchemas.replicateResult,
    }),
  ),
  budget: figureSchemas.budget,
}) satisfies SchemaOf<CertifiedFigures>;

const shown = v.variant('kind', [
  v.strictObject({ kind: v.literal('text'), text: v.string() }),
  v.strictObject({ kind: v.literal('reactions'), equations: v.array(v.string()) }),
]);

const block = v.variant('kind', [
  v.strictObject({
    kind: v.literal('rows'),
    rows: v.array(v.strictObject({ name: v.string(), value: shown })),
  }),
  v.strictObject({
    kind: v.literal('table'),
    heads: v.array(v.string()),
    rows: v.array(v.array(v.string())),
  }),
  v.strictObject({ kind: v.literal('sentences'), sentences: v.array(v.string()) }),
]);

export const documentSchema = v.strictObject({
  title: v.string(),
  number: v.string(),
  headline: v.string(),
  issuer: v.array(v.string()),
  sections: v.array(v.strictObject({ heading: v.string(), blocks: v.array(block) })),
  end: v.string(),
}) satisfies SchemaOf<Document>;

/**
 * A certificate as a file: what it states, its figures in SI units, and everything that was entered, so that anybody computes it
 * again (`npm run reproduce`).
 */
export interface CertificateFile {
  readonly format: 'vine-measure-certificate';
  /** Files of the first version have no document. */
  readonly formatVersion: 1 | 2;
  readonly certificate: Certificate;
  /** The same in words, as it is printed. */
  readonly document?: Document;
  readonly figures: CertifiedFigures;
  readonly source: RunAnswer;
}

export const certificateFileSchema = v.strictObject({
  format: v.literal('vine-measure-certificate'),
  formatVersion: v.union([v.literal(1), v.literal(2)]),
  certificate: certificateAnswer,
  document: v.exactOptional(documentSchema),
  figures,
  source: runAnswer,
}) satisfies SchemaOf<CertificateFile>;
