import type { Id } from '../../grammar';
import type { AnalysisRun } from '../run';
import { sampleOf } from '../setUp';
import type { Figures } from './figuresOf';
import { figuresOf } from './figuresOf';
import { judgedSeries } from './issueReport';
import type { Judgement } from './judge';

/** What a certified molarity rests on. */
export interface CertifiedFigures extends Pick<Figures, 'budget'> {
  readonly molarity: Figures['result'];
  readonly replicates: readonly (Omit<Figures['replicates'][number], 'result'> & {
    readonly molarity: Figures['replicates'][number]['result'];
  })[];
}

/** The figures of a standardization as judged. @throws RangeError when the judgement has no result */
export function certifiedFigures(judgement: Judgement): CertifiedFigures {
  const { result, replicates, budget } = figuresOf(judgement);
  return {
    molarity: result,
    replicates: replicates.map(({ result: molarity, ...one }) => ({ ...one, molarity })),
    budget,
  };
}

/** What a reported content of a sample rests on. */
export interface ReportedFigures extends Figures {
  readonly sampleId: Id;
}

/** The figures of every sample that has a result. */
export function reportedFigures(run: AnalysisRun): readonly ReportedFigures[] {
  return judgedSeries(run).flatMap(({ series, judgement }) =>
    judgement.result
      ? [{ sampleId: sampleOf(series.references).state.id, ...figuresOf(judgement) }]
      : [],
  );
}
