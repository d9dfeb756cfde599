import type { Finding } from '../../record';
import type { Author } from '../../rights';
import type { Report, RunState } from '../run';
import type { RunFactTable } from './draft';
import { checkInForce, closeBy, reopenBy } from './issued';

/** How the results of samples leave the laboratory. */
export interface ReportingBodies {
  'run.reported': { readonly report: Report };
  /** A fault of the run was found afterwards: its report holds no longer, and the run is open again, to be amended. */
  'run.report-withdrawn': { readonly number: string; readonly reason: string };
}

export const REPORTING_FACTS: RunFactTable<
  ReportingBodies,
  'run.reported' | 'run.report-withdrawn'
> = {
  'run.reported': {
    nature: 'decision',
    needsServer: true,
    isSigned: true,
    check: () => [],
    apply: (draft, fact) => {
      draft.reports = [...draft.reports, closeBy(draft, fact, 'reported')];
    },
    sentence: ({ report }) => `reported: ${report.number}.`,
  },
  'run.report-withdrawn': {
    nature: 'decision',
    needsServer: true,
    isSigned: true,
    comesAlways: true,
    check: ({ body: { number } }, run, around) =>
      checkWithdrawingReport(run, number, around?.author ?? null),
    apply: (draft, fact) => {
      draft.reports = reopenBy(draft, fact, draft.reports);
    },
    sentence: ({ number, reason }) => `report ${number} withdrawn: ${reason}.`,
  },
};

/** What speaks against withdrawing a report. @param author null where it is not asked who */
export function checkWithdrawingReport(
  { report }: RunState,
  number: string,
  author: Author | null,
): readonly Finding[] {
  return checkInForce(report, number, author, 'report-not-in-force');
}
