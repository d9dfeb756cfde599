import { useState } from 'react';
import { plainDateAt } from '#core/grammar';
import type { PersonState } from '#core/people';
import { authorOf } from '#core/people';
import type { Signing } from '#core/titration/judging';
import {
  judgeRun,
  reviewOf,
  signatoriesOf,
  signingFindings,
  signingOf,
} from '#core/titration/judging';
import { checkAnswering, checkReturning } from '#core/titration/record';
import type { Return, RunState, SignatureMeaning } from '#core/titration/run';
import { isAnalysisRun, openReturn } from '#core/titration/run';
import { findingText } from '#core/wording';
import { newId } from '#contract';
import { usePersonName, useRecords, useRecordsNow } from '../app/records';
import { useSession } from '../app/session';
import { useEnter } from '../titrate/useRun';
import { AskingWhy } from '../ui/AskingWhy';
import { Form, FormFoot } from '../ui/Form';
import { messagesOf } from '../ui/refusal';
import { capitalized, instantText } from '../ui/typeset';
import { useTyped } from '../ui/useTyped';
import { CertifyPanel } from './CertifyPanel';
import { PasswordField } from './PasswordField';
import { ReportPanel } from './ReportPanel';
import { useRunRequest } from './useRunRequest';

/** What each signature says, for whoever gives it. */
const SAYS: Readonly<Record<Exclude<SignatureMeaning, 'authorized'>, string>> = {
  performed: 'I did this work, and what is entered is what I saw.',
  checked: 'I looked through the run, and the result follows from it.',
};

interface SigningPanelProps {
  readonly run: RunState;
  /** False while entries of this run wait on this device: the server must have all of them first. */
  readonly isAllKept: boolean;
}

/** Who has signed for the result, who signs next, and what was given back. */
export function SigningPanel({ run, isAllKept }: SigningPanelProps) {
  const { person } = useSession();
  const people = useRecords('person') ?? [];
  const signing = signingOf(run, signatoriesOf(people));
  if (!signing) return null;
  const { next } = signing;
  const isReturned = openReturn(run) !== null;
  const againstSigning = (one: PersonState) => signingFindings(run, signing, next, authorOf(one));
  const [finding] = againstSigning(person);
  return (
    <section aria-label="Signatures" className="rounded-md border border-leaf bg-leaf-wash p-4">
      <h2 className="mb-2 text-lg font-bold">Signatures</h2>
      <Signatures signing={signing} />
      <Returns returns={run.returns} />
      {next !== 'performed' && <ToLookAt run={run} />}
      {!isAllKept ? (
        <p className="mt-3 text-sm">Some entries have still to reach the server.</p>
      ) : isReturned ? (
        <Answer run={run} />
      ) : finding ? (
        <Waits
          others={people.filter((one) => againstSigning(one).length === 0)}
          means={next}
          why={findingText(finding)}
        />
      ) : next === 'authorized' ? (
        <Issue key={signing.draft} run={run} signing={signing} />
      ) : (
        <SignForm key={`${next}${signing.draft}`} run={run} means={next} signing={signing} />
      )}
      <GiveBack run={run} />
    </section>
  );
}

/** The last signature issues a certificate of the titrant, or a report of the samples. */
function Issue({ run, signing }: { readonly run: RunState; readonly signing: Signing }) {
  return isAnalysisRun(run) ? (
    <ReportPanel run={run} signing={signing} />
  ) : (
    <CertifyPanel run={run} judgement={judgeRun(run)} signing={signing} />
  );
}

/** Every signature that it takes, those that are there and those to come. */
function Signatures({ signing: { needed, given, lapsed, next } }: { readonly signing: Signing }) {
  const { laboratory } = useSession();
  const nameOf = usePersonName();
  return (
    <dl className="mb-3 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
      {needed.map((means) => {
        const signature = given.find((one) => one.means === means);
        return (
          <div key={means} className="col-span-full grid grid-cols-subgrid items-baseline">
            <dt className={means === next ? 'font-bold' : ''}>{capitalized(means)}</dt>
            <dd className={signature ? '' : 'text-ink-soft'}>
              {signature ? (
                <>
                  <span aria-hidden className="mr-1 text-leaf">
                    ✓
                  </span>
                  {nameOf(signature.by)}, {instantText(signature.at, laboratory.timeZone)}
                </>
              ) : lapsed.includes(means) ? (
                'signed for what it was before an entry changed it'
              ) : means === next ? (
                'next'
              ) : (
                'to come'
              )}
            </dd>
          </div>
        );
      })}
    </dl>
  );
}

/** What is out of the ordinary in the run, for whoever signs after its analyst. */
function ToLookAt({ run }: Pick<SigningPanelProps, 'run'>) {
  const { laboratory } = useSession();
  const now = useRecordsNow(run.setUp);
  const points = reviewOf(run, now, plainDateAt(run.started.at, laboratory.timeZone));
  if (points.length === 0) {
    return <p className="mb-3 text-ink-soft">Nothing in the run is out of the ordinary.</p>;
  }
  return (
    <>
      <h3 className="font-bold">To look at</h3>
      <ul aria-label="To look at" className="mb-3 list-disc pl-5 text-[15px]">
        {points.map(({ about, text }) => (
          <li key={`${about} ${text}`}>{text}</li>
        ))}
      </ul>
    </>
  );
}

/** What was given back, and what was said to it. */
function Returns({ returns }: { readonly returns: readonly Return[] }) {
  const { laboratory } = useSession();
  const nameOf = usePersonName();
  if (returns.length === 0) return null;
  return (
    <ul aria-label="Given back" className="mb-3 space-y-2">
      {returns.map(({ factId, by, at, remarks, answered }) => (
        <li key={factId} className={`border-l-4 pl-3 ${answered ? 'border-rule' : 'border-straw'}`}>
          <p>
            <b>Given back</b> by {nameOf(by)}, {instantText(at, laboratory.timeZone)}: {remarks}
          </p>
          {answered && (
            <p>
              <b>Answered</b> by {nameOf(answered.by)},{' '}
              {instantText(answered.at, laboratory.timeZone)}: {answered.answer}
            </p>
          )}
        </li>
      ))}
    </ul>
  );
}

interface SignFormProps {
  readonly run: RunState;
  readonly means: Exclude<SignatureMeaning, 'authorized'>;
  readonly signing: Signing;
}

/** A signature: what it says, and the password. It goes straight to the server. */
function SignForm({ run, means, signing }: SignFormProps) {
  const { typed, field, change } = useTyped({ password: '' });
  const sign = useRunRequest(run, 'signatures');
  // Pressing again after a lost answer sends the same.
  const [factId] = useState(newId);
  return (
    <Form
      aria-label={`Sign as ${means}`}
      onSubmit={() => {
        const { password } = typed;
        sign.mutate(
          { factId, means, draft: signing.draft, password },
          {
            onError: () => {
              change({ password: '' });
            },
          },
        );
      }}
    >
      <p className="mb-3">“{SAYS[means]}”</p>
      <PasswordField {...field('password')} error={messagesOf(sign.error).password} />
      <div className="mt-3">
        <FormFoot
          submit={`Sign as ${means}`}
          isDisabled={sign.isPending || typed.password === ''}
          error={sign.error?.message}
        />
      </div>
    </Form>
  );
}

/** Why the person who is signed in does not sign next, and who can. */
function Waits({
  others,
  means,
  why,
}: {
  readonly others: readonly PersonState[];
  readonly means: SignatureMeaning;
  readonly why: string;
}) {
  const names = others.map(({ name }) => name).toSorted();
  return (
    <>
      <p>{why}</p>
      {names.length > 0 && (
        <p className="mt-1 text-ink-soft">
          To be signed as {means} by {names.join(' or ')}.
        </p>
      )}
    </>
  );
}

/** Gives the run back to whoever performed it, with remarks. */
function GiveBack({ run }: { readonly run: RunState }) {
  const { person } = useSession();
  const enter = useEnter(run);
  if (checkReturning(run, authorOf(person)).length > 0) return null;
  return (
    <p className="mt-3">
      <AskingWhy
        look="link"
        button="Give it back…"
        question={{
          title: 'Give it back?',
          description:
            'Your remarks are answered before anybody signs it further. They stay on record.',
          confirm: 'Give it back',
          label: 'Remarks',
          onConfirm: (remarks) => enter({ kind: 'run.returned', body: { remarks } }),
        }}
      />
    </p>
  );
}

/** Answers what was remarked; entries are put right at the bench first, where they were wrong. */
function Answer({ run }: { readonly run: RunState }) {
  const { person } = useSession();
  const enter = useEnter(run);
  if (checkAnswering(run, authorOf(person)).length > 0) {
    return <p>Somebody who did the work answers before it is signed further.</p>;
  }
  return (
    <AskingWhy
      button="Answer…"
      question={{
        title: 'Answer the remarks',
        description: 'What was wrong is put right at the bench first. Then it is signed again.',
        confirm: 'Answer',
        label: 'Answer',
        onConfirm: (answer) => enter({ kind: 'run.answered', body: { answer } }),
      }}
    />
  );
}
