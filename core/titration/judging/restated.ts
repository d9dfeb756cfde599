import type { BottleState } from '../../reagent';
import { certificateInForce } from '../../reagent';
import type { AnalysisRun, Report } from '../run';
import { sampleOf } from '../setUp';
import { foundIn } from './found';
import { judgedSeries } from './issueReport';
import { partsFound, statedText } from './parts';
import { titrantWithdrawn } from './recordsNow';

/** What became of a report whose titrant rests on a certificate that was withdrawn since. */
interface Restated {
  /** The certificate that it rests on. */
  readonly number: string;
  readonly reason: string;
  /** The certificate that took its place with what the results come to by that, beside what was stated; null while there is none. */
  readonly draft: {
    readonly number: string;
    readonly results: readonly {
      readonly code: string;
      readonly stated: string;
      readonly wouldBe: string;
    }[];
  } | null;
}

/**
 * The results of a report by the certificate that holds now, as a draft: what was issued stays as it is. Null where its certificate was
 * not withdrawn.
 *
 * @param titrant the bottle as it is now
 */
export function restated(run: AnalysisRun, report: Report, titrant: BottleState): Restated | null {
  const withdrawn = titrantWithdrawn(run, { bottles: [titrant] });
  if (!withdrawn) return null;
  const { certificateNumber: number, reason } = withdrawn.certificate;
  const current = certificateInForce(titrant);
  if (!current) return { number, reason, draft: null };
  const again = judgedSeries({ ...run, references: { ...run.references, titrant } });
  const results = again.flatMap(({ series, judgement }) => {
    const { result } = judgement;
    const { id, sample } = sampleOf(series.references).state;
    const was = report.results.find(({ sampleId }) => sampleId === id);
    if (!result || !was) return [];
    const parts = partsFound(series, judgement);
    const wouldBe = statedText({ series, judgement }, foundIn(series, result), parts);
    return [{ code: sample.code, stated: was.stated, wouldBe }];
  });
  return { number, reason, draft: { number: current.certificateNumber, results } };
}
