import type { Finding } from '../../record';
import { checkMay, impossible, provenance } from '../../record';
import type { Author } from '../../rights';
import type { Report, RunState } from '../run';
import type { RunFactTable } from './draft';

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
      draft.status = 'reported';
      const issued = { ...fact.body, documents: draft.documents, withdrawn: null };
      draft.reports = [...draft.reports, issued];
      draft.documents = [];
      draft.closed = { ...provenance(fact), reason: null };
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
      const last = draft.reports.at(-1);
      if (!last) return;
      const withdrawn = { ...provenance(fact), reason: fact.body.reason };
      draft.reports = [...draft.reports.slice(0, -1), { ...last, withdrawn }];
      draft.status = 'open';
      draft.closed = null;
    },
    sentence: ({ number, reason }) => `report ${number} withdrawn: ${reason}.`,
  },
};

/**
 * What speaks against withdrawing a report: it must be the one in force, and take somebody who may issue one.
 *
 * @param author null where it is not asked who
 */
export function checkWithdrawingReport(
  { report }: RunState,
  number: string,
  author: Author | null,
): readonly Finding[] {
  return [
    ...(author ? checkMay(author, 'authorize') : []),
    ...(report?.number === number ? [] : [impossible('report-not-in-force', 'number', { number })]),
  ];
}
