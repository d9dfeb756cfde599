import { useState } from 'react';
import type { Assessment, Circumstance } from '#core/incident';
import type { DecimalText } from '#core/measurement';
import { parseDecimal, roundHalfEven, roundSignificant } from '#core/measurement';
import type { Judgement } from '#core/titration/judging';
import type { MeasuredIncident, RunState } from '#core/titration/run';
import { assessFlaskIncident, incidentsOf } from '#core/titration/judging';
import { flaskOf } from '#core/titration/run';
import { Button } from '../ui/Button';
import { QuantityField, SelectField, TextAreaField, TextField } from '../ui/fields';
import { FormDialog } from '../ui/Form';
import { RadioList } from '../ui/RadioList';
import { fieldsOf, useTyped } from '../ui/useTyped';
import { FlaskSelect } from './FlaskSelect';
import { useEntering } from './useRun';

const VERDICTS: Readonly<Record<Assessment['verdict'], string>> = {
  void: 'Void this titration.',
  'discard-solution': 'Discard the solution.',
  correct: 'Correct it by what was measured.',
  note: 'Note it.',
  'act-now': 'Do something about it now.',
  'carry-on': 'Carry on: it does not matter.',
};

const DIRECTIONS: Readonly<Record<Assessment['direction'], string>> = {
  'too-high': 'The molarity comes out too high',
  'too-low': 'The molarity comes out too low',
  none: 'The molarity is not touched',
  either: 'The molarity may be off either way',
  unknown: 'Nobody can say which way the molarity is off',
};

const MEASURES = [
  { what: 'volumeMl', words: 'a volume', unit: 'mL' },
  { what: 'massG', words: 'a mass', unit: 'g' },
  { what: 'drops', words: 'drops', unit: 'drops' },
  { what: 'alkalinityMmolPerL', words: 'the alkalinity of the water', unit: 'mmol/L' },
] as const;

interface IncidentDialogProps {
  readonly run: RunState;
  readonly judgement: Judgement;
  readonly flask: number;
  readonly onClose: () => void;
}

/** Does it matter? An incident judged on this run's own numbers; asking records nothing, writing it down does. */
export function IncidentDialog({ run, judgement, flask: first, onClose }: IncidentDialogProps) {
  const entering = useEntering(run, onClose);
  const [number, setNumber] = useState(first);
  const [chosenId, setChosenId] = useState<string | null>(null);
  const { typed, change, field } = useTyped(NOTHING_SAID);
  const flask = flaskOf(run, number);
  const measured = measuredOf(typed);
  const assessment =
    flask && chosenId !== null
      ? assessFlaskIncident(run, judgement, flask, {
          incidentId: chosenId,
          measured,
          ...circumstancesOf(typed),
        })
      : null;
  const isOpen = run.status === 'open';

  const writeDown = (isVoid: boolean): void => {
    if (!assessment) return;
    const { id: incidentId, name } = assessment.incident;
    const remark = typed.remark.trim();
    const body = { flask: number, incidentId, measured, ...circumstancesOf(typed), remark };
    const voided = {
      kind: 'run.flask-voided',
      body: { flask: number, reason: `${name}.`, cause: 'incident' },
    } as const;
    entering.mutate([{ kind: 'run.incident-noted', body }, ...(isVoid ? [voided] : [])]);
  };
  return (
    <FormDialog
      title="Does it matter?"
      description="Nothing is recorded until you write it down."
      submit="Write it down"
      isDisabled={!assessment || !isOpen}
      error={entering.error?.message}
      ways={
        assessment?.verdict === 'void' &&
        isOpen &&
        !flask?.voided && (
          <Button
            onClick={() => {
              writeDown(true);
            }}
          >
            Write it down and void it
          </Button>
        )
      }
      className="flex flex-col gap-3"
      onSubmit={() => {
        writeDown(false);
      }}
      onClose={onClose}
    >
      <div className="grid grid-cols-[130px_minmax(0,1fr)] gap-3">
        <FlaskSelect flasks={run.flasks} chosen={number} onChoose={setNumber} />
        <TextField
          label="What happened"
          placeholder="bubble, drop, colour …"
          {...field('sought')}
        />
      </div>
      <IncidentList run={run} sought={typed.sought} chosenId={chosenId} onChoose={setChosenId} />
      {assessment && <Verdict assessment={assessment} />}
      <Measured typed={typed} asks={assessment?.incident.asks} onChange={change} />
    </FormDialog>
  );
}

/** What is typed beside the choice of an incident. */
interface Said {
  readonly sought: string;
  readonly what: MeasuredIncident['what'];
  readonly amount: string;
  readonly waterMl: string;
  readonly volumetricFlaskMl: string;
  readonly remark: string;
}

const NOTHING_SAID: Said = {
  sought: '',
  what: 'volumeMl',
  amount: '',
  waterMl: '',
  volumetricFlaskMl: '',
  remark: '',
};

/** What an incident's size hangs on beside, where the run does not know it. */
const CIRCUMSTANCES: Readonly<Record<Circumstance, string>> = {
  waterMl: 'Water in the flask',
  volumetricFlaskMl: 'Flask it was made up in',
};

/** What was said of the circumstances. */
function circumstancesOf({
  waterMl,
  volumetricFlaskMl,
}: Said): Readonly<Record<Circumstance, DecimalText | null>> {
  const known = (text: string): DecimalText | null => {
    const value = parseDecimal(text);
    return value !== null && Number(value) > 0 ? value : null;
  };
  return { waterMl: known(waterMl), volumetricFlaskMl: known(volumetricFlaskMl) };
}

/** How large it was, where that is known. */
function measuredOf({ what, amount }: Said): MeasuredIncident | null {
  const value = parseDecimal(amount);
  return value !== null && Number(value) > 0 ? { what, value } : null;
}

/** The incidents whose names hold what is sought. */
function IncidentList({
  run,
  sought,
  ...choice
}: {
  readonly run: RunState;
  readonly sought: string;
  readonly chosenId: string | null;
  readonly onChoose: (id: string) => void;
}) {
  const found = incidentsOf(run).filter(({ name }) =>
    name.toLowerCase().includes(sought.trim().toLowerCase()),
  );
  return (
    <RadioList
      legend="Incidents"
      items={found}
      className="h-[192px] overflow-y-auto border-y border-rule"
      {...choice}
    >
      {found.length === 0 && (
        <p className="p-2 text-ink-soft">
          Not in the list: choose another and describe it in its remark.
        </p>
      )}
    </RadioList>
  );
}

/** How large it was, and a remark. */
function Measured({
  typed,
  asks,
  onChange,
}: {
  readonly typed: Said;
  readonly asks: Circumstance | undefined;
  readonly onChange: (changes: Partial<Said>) => void;
}) {
  const field = fieldsOf(typed, onChange);
  return (
    <div className="grid grid-cols-1 gap-3 sm:grid-cols-2">
      <SelectField
        label="Measured or counted"
        value={typed.what}
        options={MEASURES.map(({ what, words }) => [what, words])}
        onText={(text) => {
          const chosen = MEASURES.find(({ what }) => what === text);
          if (chosen) onChange({ what: chosen.what });
        }}
      />
      <QuantityField
        label="How much, if known"
        unit={MEASURES.find(({ what }) => what === typed.what)?.unit ?? ''}
        {...field('amount')}
      />
      {asks && <QuantityField label={CIRCUMSTANCES[asks]} unit="mL" {...field(asks)} />}
      <div className="col-span-full">
        <TextAreaField label="Remark" {...field('remark')} />
      </div>
    </div>
  );
}

/** What to do, which way it is off, by how much, and why. */
function Verdict({ assessment }: { readonly assessment: Assessment }) {
  const { verdict, direction, biasPercent, titreMl, reason, action } = assessment;
  const isCalm = verdict === 'carry-on' || verdict === 'note';
  return (
    <div
      role="status"
      className={`border-l-4 px-3 py-2 ${isCalm ? 'border-leaf bg-leaf-wash' : 'border-blush bg-blush-wash'}`}
    >
      <p className="font-bold">{VERDICTS[verdict]}</p>
      <p>
        {DIRECTIONS[direction]}
        {biasPercent && biasPercent[1] > 0 && `, by ${rangeText(biasPercent)} %`}
        {titreMl && titreMl[1] > 0 && ` (${rangeText(titreMl)} mL of the titre)`}. {reason} {action}
      </p>
    </div>
  );
}

function rangeText([least, most]: readonly [number, number]): string {
  const text = (value: number): string => (value === 0 ? '0' : roundSignificant(value, 2));
  return roundHalfEven(least, 6) === roundHalfEven(most, 6)
    ? text(most)
    : `${text(least)} to ${text(most)}`;
}
