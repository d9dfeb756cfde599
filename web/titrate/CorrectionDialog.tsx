import { useState } from 'react';
import { figureText, parseDecimal } from '#core/measurement';
import type { Entry, Portion, Reading, ReadingPlace, RunState } from '#core/titration/run';
import { placeName, portionAmount, readingsOf } from '#core/titration/run';
import type { NewFact } from '#contract';
import { usePersonName } from '../app/records';
import { useSession } from '../app/session';
import { Button } from '../ui/Button';
import type { FieldMessages } from '../ui/fieldMessages';
import { reasonProblem } from '../ui/fieldMessages';
import { QuantityField, TextAreaField } from '../ui/fields';
import { FormDialog } from '../ui/Form';
import { instantText } from '../ui/typeset';
import { useTyped } from '../ui/useTyped';
import { useEntering } from './useRun';

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
  const entering = useEntering(run, onClose);
  const [errors, setErrors] = useState<FieldMessages>({});
  const { typed, field } = useTyped({ first: '', second: '', reason: '' }, errors);
  const portion = correction.what === 'portion' ? correction.entry.value : null;
  const isDifference = portion?.kind === 'mass' && portion.weighing.mode === 'by-difference';
  const unit = portion?.kind === 'mass' ? 'g' : 'mL';
  const sharedWith = otherFlaskOf(run, correction);

  const submit = (): void => {
    const first = parseDecimal(typed.first);
    const second = isDifference ? parseDecimal(typed.second) : null;
    const why = reasonProblem(typed.reason);
    const isNoNumber = first === null || (isDifference && second === null);
    setErrors({
      ...(isNoNumber && { first: 'Write a plain number, such as 7.10.' }),
      ...(why !== undefined && { reason: why }),
    });
    if (isNoNumber || why !== undefined) return;
    entering.mutate([correctionFact(correction, first, second, typed.reason)]);
  };
  return (
    <FormDialog
      title={`Correct the ${nameOf(correction)} of flask ${String(correction.flask)}`}
      description={`The old figure stays on record, struck through.${
        sharedWith === null
          ? ''
          : ` It is also the other reading of flask ${String(sharedWith)}: both change.`
      }`}
      submit="Correct it"
      leave="Keep it as it is"
      error={entering.error?.message}
      ways={
        <ReadTheSame
          correction={correction}
          onConfirm={(confirms) => {
            entering.mutate([{ kind: 'run.reading-confirmed', body: { confirms } }]);
          }}
        />
      }
      onSubmit={submit}
      onClose={onClose}
    >
      <History correction={correction} />
      <div className="grid grid-cols-1 gap-4 sm:grid-cols-2">
        <QuantityField
          label={isDifference ? 'Before' : 'It should be'}
          unit={unit}
          {...field('first')}
        />
        {isDifference && <QuantityField label="After" unit={unit} {...field('second')} />}
      </div>
      <TextAreaField label="Why" {...field('reason')} />
    </FormDialog>
  );
}

/** For somebody who has neither entered nor confirmed a reading. */
function ReadTheSame({
  correction,
  onConfirm,
}: {
  readonly correction: Correction;
  readonly onConfirm: (factId: string) => void;
}) {
  const { person } = useSession();
  if (correction.what !== 'reading') return null;
  const { by, confirmed, factId } = correction.entry;
  if ([by, ...confirmed.map((one) => one.by)].includes(person.id)) return null;
  return (
    <Button
      className="order-last ml-auto"
      onClick={() => {
        onConfirm(factId);
      }}
    >
      I have read the same
    </Button>
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
        <span className="font-mono text-xl font-semibold">{figureText(now)}</span> entered by{' '}
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
