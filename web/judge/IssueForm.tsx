import type { ReactNode } from 'react';
import type { Finding } from '#core/record';
import { reasonOrNull } from '../ui/fieldMessages';
import { TextAreaField } from '../ui/fields';
import { isLetThrough } from '../ui/Findings';
import { Form, FormFoot } from '../ui/Form';
import { messagesOf } from '../ui/refusal';
import { useTyped } from '../ui/useTyped';
import { Against } from './Against';
import { PasswordField } from './PasswordField';

/** What is said by whoever issues. */
interface Said {
  readonly reason: string | null;
  readonly password: string;
}

interface IssueFormProps {
  readonly label: string;
  readonly submit: string;
  readonly findings: readonly Finding[];
  /** The request by which it is issued. */
  readonly request: { readonly isPending: boolean; readonly error: Error | null };
  readonly onIssue: (said: Said, options: { readonly onError: () => void }) => void;
  /** What else is asked. */
  readonly children?: ReactNode;
}

/** The last signature: what speaks against it, why all the same, and the password. */
export function IssueForm({ label, submit, findings, request, onIssue, children }: IssueFormProps) {
  const { typed, field, change } = useTyped({ reason: '', password: '' });
  return (
    <Form
      aria-label={label}
      onSubmit={() => {
        onIssue(
          { reason: reasonOrNull(typed.reason), password: typed.password },
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
        {children}
        <TextAreaField
          label={findings.length > 0 ? 'Why all the same' : 'Remark'}
          {...field('reason')}
        />
        <PasswordField {...field('password')} error={messagesOf(request.error).password} />
      </div>
      <div className="mt-3">
        <FormFoot
          submit={submit}
          isDisabled={
            request.isPending || !isLetThrough(findings, typed.reason) || typed.password === ''
          }
          error={request.error?.message}
        />
      </div>
    </Form>
  );
}
