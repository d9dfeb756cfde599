import { useState } from 'react';
import { parseDecimal } from '#core/measurement';
import type { Entry, Portion, Reading, ReadingPlace, RunState } from '#core/titration/run';
import { checkRunFact } from '#core/titration/record';
import { placeName, portionAmount, readingsOf } from '#core/titration/run';
import type { NewFact } from '#contract';
import { findingText } from '#core/wording';
import { usePersonName } from '../app/records';
import { useSession } from '../app/session';
import { Button } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import { reasonProblem } from '../ui/fieldMessages';
import { QuantityField, TextAreaField } from '../ui/fields';
import { instantText } from '../ui/typeset';
import { useEnter } from './useRun';

/** What is to be corrected. */
export type Correction =
  | { readonly what: 'portion'; readonly flask: number; readonly entry: Entry<Portion> }
  | {
      readonly what: 'reading';
      readonly flask: number;
      readonly place: ReadingPlace;
      readonly entry: Reading;
    };

interface CorrectionDialogProps {
  readonly run: RunState;
  readonly correction: Correction;
  readonly onClose: () => void;
}

/** Corrects a figure: the old one is kept, struck through, with who, when and why. */
export function CorrectionDialog({ run, correction, onClose }: CorrectionDialogProps) {
  const { propose, keep } = useEnter(run);
  const portion = correction.what === 'portion' ? correction.entry.value : null;
  const isDifference = portion?.kind === 'mass' && portion.weighing.mode === 'by-difference';
  const [first, setFirst] = useState('');
  const [second, setSecond] = useState('');
  const [reason, setReason] = useState('');
  const [error, setError] = useState<string>();
  const [reasonError, setReasonError] = useState<string>();
  const unit = portion?.kind === 'mass' ? 'g' : 'mL';
  const sharedWith = otherFlaskOf(run, correction);
  const { person } = useSession();
  const mayConfirm =
    correction.what === 'reading' &&
    correction.entry.by !== person.id &&
    correction.entry.confirmed.every(({ by }) => by !== person.id);

  const submit = async (): Promise<void> => {
    const one = parseDecimal(first);
    const two = parseDecimal(second);
    setError(undefined);
    setReasonError(undefined);
    if (one === null || (isDifference && two === null)) {
      setError('Write a plain number, such as 7.10.');
      return;
    }
    const problem = reasonProblem(reason);
    if (problem !== undefined) {
      setReasonError(problem);
      return;
    }
    const { proposed, fact } = propose(
      correctionFact(correction, one, isDifference ? two : null, reason.trim()),
    );
    const refused = checkRunFact(run, fact).find(({ severity }) => severity === 'impossible');
    if (refused) {
      setError(findingText(refused));
      return;
    }
    await keep(proposed);
    onClose();
  };

  return (
    <Dialog
      title={`Correct the ${nameOf(correction)} of flask ${String(correction.flask)}`}
      description={
        <p>
          The old figure stays on record, struck through.{' '}
          {sharedWith === null
            ? ''
            : `It is also the other reading of flask ${String(sharedWith)}: both change.`}
        </p>
      }
      onClose={onClose}
    >
      <History correction={correction} />
      <form
        noValidate
        className="mt-4 flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
      >
        <div className="grid grid-cols-1 gap-4 sm:grid-cols-2">
          <QuantityField
            label={isDifference ? 'Before' : 'It should be'}
            unit={unit}
            value={first}
            error={error}
            onText={setFirst}
          />
          {isDifference && (
            <QuantityField label="After" unit={unit} value={second} onText={setSecond} />
          )}
        </div>
        <TextAreaField label="Why" value={reason} error={reasonError} onText={setReason} />
        <div className="flex gap-3">
          <Button type="submit" look="primary">
            Correct it
          </Button>
          <Button onClick={onClose}>Leave it as it is</Button>
          {mayConfirm && (
            <Button
              className="ml-auto"
              onClick={() => {
                const body = { confirms: correction.entry.factId };
                void keep(propose({ kind: 'run.reading-confirmed', body }).proposed).then(onClose);
              }}
            >
              I have read the same
            </Button>
          )}
        </div>
      </form>
    </Dialog>
  );
}

/** The flask that shares a carried-over reading with the one that is corrected; null when there is none. */
function otherFlaskOf(run: RunState, { flask, entry }: Correction): number | null {
  const other = run.flasks.find(
    (one) =>
      one.number !== flask &&
      readingsOf(one).some(({ entry: { factId } }) => factId === entry.factId),
  );
  return other?.number ?? null;
}

function nameOf(correction: Correction): string {
  if (correction.what === 'reading') return placeName(correction.place);
  return correction.entry.value.kind === 'mass' ? 'mass' : 'volume';
}

/** The figure as it stands, and what it was before. */
function History({ correction }: { readonly correction: Correction }) {
  const { laboratory } = useSession();
  const personName = usePersonName();
  const { entry } = correction;
  const versions: readonly { value: string; reason: string; by: string; at: string }[] =
    correction.what === 'portion'
      ? correction.entry.superseded.map((old) => ({ ...old, value: portionAmount(old.value) }))
      : correction.entry.superseded;
  const now =
    correction.what === 'portion' ? portionAmount(correction.entry.value) : correction.entry.value;
  const confirmed = correction.what === 'reading' ? correction.entry.confirmed : [];
  return (
    <ol className="border-y border-rule py-2">
      {versions.map((old) => (
        <li key={old.at} className="text-[15px]">
          <s className="font-mono text-blush">{old.value}</s> given up by {personName(old.by)},{' '}
          {instantText(old.at, laboratory.timeZone)}: {old.reason}
        </li>
      ))}
      <li>
        <span className="font-mono text-xl font-semibold">{now}</span> entered by{' '}
        {personName(entry.by)}, {instantText(entry.at, laboratory.timeZone)}
        {entry.reason !== null && <>: {entry.reason}</>}
      </li>
      {confirmed.map(({ factId, by, at }) => (
        <li key={factId} className="text-[15px] text-leaf">
          read by {personName(by)} too, {instantText(at, laboratory.timeZone)}
        </li>
      ))}
    </ol>
  );
}

function correctionFact(
  correction: Correction,
  first: string,
  second: string | null,
  reason: string,
): NewFact {
  const corrects = correction.entry.factId;
  if (correction.what === 'reading') {
    return { kind: 'run.reading-corrected', body: { corrects, readingMl: first, reason } };
  }
  if (correction.entry.value.kind !== 'mass') {
    return { kind: 'run.volume-corrected', body: { corrects, volumeMl: first, reason } };
  }
  const weighing =
    second === null
      ? ({ mode: 'tared', massG: first } as const)
      : ({ mode: 'by-difference', beforeG: first, afterG: second } as const);
  return { kind: 'run.weighing-corrected', body: { corrects, weighing, reason } };
}
