import { useState } from 'react';
import type { Signing } from '#core/titration/judging';
import { outOfUseFindings, reportFindings } from '#core/titration/judging';
import type { AnalysisRun, ReportForm } from '#core/titration/run';
import { newId } from '#contract';
import { useRecordsNow, useRecordsOf } from '../app/records';
import { SelectField } from '../ui/fields';
import { useTyped } from '../ui/useTyped';
import { IssueForm } from './IssueForm';
import { useControls } from './useControls';
import { useRunRequest } from './useRunRequest';

interface ReportPanelProps {
  readonly run: AnalysisRun;
  readonly signing: Signing;
}

const FORM_OPTIONS: readonly (readonly [ReportForm, string])[] = [
  ['batch', 'one paper for all samples'],
  ['each', 'a paper for each sample'],
];

/** Freezes the results and issues the report, or says what speaks against it. */
export function ReportPanel({ run, signing }: ReportPanelProps) {
  const { samples } = run.references;
  const customers = new Set(samples.map(({ state }) => state.sample.customer));
  const { typed, field } = useTyped<{ readonly form: string }>({
    form: customers.size <= 1 ? 'batch' : 'each',
  });
  const now = useRecordsNow(run.setUp);
  const samplesNow = useRecordsOf(
    'sample',
    samples.map(({ state }) => state.id),
  );
  const report = useRunRequest(run, 'report');
  // Pressing again after a lost answer sends the same.
  const [factId] = useState(newId);
  const findings = [
    ...reportFindings(run, {
      bottles: now.bottles,
      samples: samplesNow,
      controls: useControls(run),
    }),
    ...outOfUseFindings(run.setUp, now),
  ];
  return (
    <IssueForm
      label="Report"
      submit={samples.length > 1 ? 'Report the results' : 'Report the result'}
      findings={findings}
      request={report}
      onIssue={(said, options) => {
        const form = typed.form === 'each' ? 'each' : 'batch';
        report.mutate({ factId, draft: signing.draft, form, ...said }, options);
      }}
    >
      {samples.length > 1 && <SelectField label="As" {...field('form')} options={FORM_OPTIONS} />}
    </IssueForm>
  );
}
