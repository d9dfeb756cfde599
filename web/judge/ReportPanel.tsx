import { useState } from 'react';
import type { Signing } from '#core/titration/judging';
import { outOfUseFindings, reportFindings } from '#core/titration/judging';
import type { AnalysisRun, ReportForm } from '#core/titration/run';
import { newId } from '#contract';
import { useRecordsNow, useRecordsOf } from '../app/records';
import { reasonOrNull } from '../ui/fieldMessages';
import { SelectField, TextAreaField } from '../ui/fields';
import { isLetThrough } from '../ui/Findings';
import { Form, FormFoot } from '../ui/Form';
import { messagesOf } from '../ui/refusal';
import { useTyped } from '../ui/useTyped';
import { Against } from './Against';
import { PasswordField } from './PasswordField';
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

/** The last signature: freezes the results and issues the report, or says what speaks against it. */
export function ReportPanel({ run, signing }: ReportPanelProps) {
  const { samples } = run.references;
  const customers = new Set(samples.map(({ state }) => state.sample.customer));
  const [isForOne] = useState(customers.size <= 1);
  const { typed, field, change } = useTyped({
    form: isForOne ? 'batch' : 'each',
    reason: '',
    password: '',
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
  const mayReport = isLetThrough(findings, typed.reason);
  return (
    <Form
      aria-label="Report"
      onSubmit={() => {
        const { password } = typed;
        const form = typed.form === 'each' ? 'each' : 'batch';
        report.mutate(
          { factId, draft: signing.draft, form, reason: reasonOrNull(typed.reason), password },
          {
            onError: () => {
              change({ password: '' });
            },
          },
        );
      }}
    >
      <Against findings={findings} />
      <div className="grid grid-cols-1 items-start gap-4 sm:grid-cols-2">
        {samples.length > 1 && <SelectField label="As" {...field('form')} options={FORM_OPTIONS} />}
        <TextAreaField
          label={findings.length > 0 ? 'Why all the same' : 'Remark'}
          {...field('reason')}
        />
        <PasswordField {...field('password')} error={messagesOf(report.error).password} />
      </div>
      <div className="mt-3">
        <FormFoot
          submit={samples.length > 1 ? 'Report the results' : 'Report the result'}
          isDisabled={report.isPending || !mayReport || typed.password === ''}
          error={report.error?.message}
        />
      </div>
    </Form>
  );
}
