import { useState } from 'react';
import type { Assessment } from '#core/incident';
import { parseDecimal, roundHalfEven, roundSignificant } from '#core/measurement';
import type { Judgement } from '#core/titration/judging';
import type { MeasuredIncident, RunState } from '#core/titration/run';
import { assessFlaskIncident, incidentsOf } from '#core/titration/judging';
import { flaskOf } from '#core/titration/run';
import { Button } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import { QuantityField, SelectField, TextAreaField } from '../ui/fields';
import { RadioList } from '../ui/RadioList';
import { FlaskSelect } from './FlaskSelect';
import { useEnter } from './useRun';

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
] as const;

/** Does it matter? An incident judged on this run's own numbers; asking records nothing, writing it down does. */
export function IncidentDialog({
  run,
  judgement,
  flask: first,
  onClose,
}: {
  readonly run: RunState;
  readonly judgement: Judgement;
  readonly flask: number;
  readonly onClose: () => void;
}) {
  const { propose, keep } = useEnter(run);
  const [number, setNumber] = useState(first);
  const [sought, setSought] = useState('');
  const [chosenId, setChosenId] = useState<string | null>(null);
  const [what, setWhat] = useState<MeasuredIncident['what']>('volumeMl');
  const [amount, setAmount] = useState('');
  const [remark, setRemark] = useState('');
  const flask = flaskOf(run, number);
  const found = incidentsOf(run).filter(({ name }) =>
    name.toLowerCase().includes(sought.trim().toLowerCase()),
  );
  const value = parseDecimal(amount);
  const measured = value !== null && Number(value) > 0 ? { what, value } : null;
  const assessment =
    flask && chosenId !== null
      ? assessFlaskIncident(run, judgement, flask, chosenId, measured)
      : null;

  const writeDown = async (isVoid: boolean): Promise<void> => {
    if (!assessment) return;
    const body = {
      flask: number,
      incidentId: assessment.incident.id,
      measured,
      remark: remark.trim(),
    };
    await keep(propose({ kind: 'run.incident-noted', body }).proposed);
    if (isVoid) {
      const reason = `${assessment.incident.name}.`;
      // It rests on the note that was written down a moment ago.
      const { proposed } = propose({ kind: 'run.flask-voided', body: { flask: number, reason } });
      await keep({ ...proposed, basedOn: run.version + 1 });
    }
    onClose();
  };
  return (
    <Dialog
      title="Does it matter?"
      description={<p>Asking changes nothing until it is written down.</p>}
      onClose={onClose}
    >
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          void writeDown(false);
        }}
      >
        <div className="grid grid-cols-[130px_minmax(0,1fr)] gap-3">
          <FlaskSelect flasks={run.flasks} chosen={number} onChoose={setNumber} />
          <div>
            <label className="mb-1 block font-semibold" htmlFor="incident-sought">
              What happened
            </label>
            <input
              id="incident-sought"
              placeholder="bubble, drop, colour …"
              value={sought}
              className="min-h-12 w-full rounded-md border border-rule-strong bg-sheet px-3 text-lg"
              onChange={(event) => {
                setSought(event.target.value);
              }}
            />
          </div>
        </div>
        <RadioList
          legend="Incidents"
          items={found}
          chosenId={chosenId}
          onChoose={setChosenId}
          className="mt-2 h-[192px] overflow-y-auto border-y border-rule"
        >
          {found.length === 0 && (
            <p className="p-2 text-ink-soft">Not in the list: say it in the remark of another.</p>
          )}
        </RadioList>
        {assessment && <Verdict assessment={assessment} />}
        <div className="mt-3 grid grid-cols-1 gap-3 sm:grid-cols-2">
          <SelectField
            label="Measured or counted"
            value={what}
            onChange={(event) => {
              const chosen = MEASURES.find((one) => one.what === event.target.value);
              if (chosen) setWhat(chosen.what);
            }}
          >
            {MEASURES.map((one) => (
              <option key={one.what} value={one.what}>
                {one.words}
              </option>
            ))}
          </SelectField>
          <QuantityField
            label="How much, if known"
            unit={MEASURES.find((one) => one.what === what)?.unit ?? ''}
            value={amount}
            onText={setAmount}
          />
          <div className="col-span-full">
            <TextAreaField label="Remark" value={remark} onText={setRemark} />
          </div>
        </div>
        <div className="mt-4 flex gap-3">
          <Button type="submit" look="primary" disabled={!assessment || run.status !== 'open'}>
            Write it down
          </Button>
          {assessment?.verdict === 'void' && run.status === 'open' && !flask?.voided && (
            <Button onClick={() => void writeDown(true)}>Write it down and void it</Button>
          )}
          <Button onClick={onClose}>Leave it</Button>
        </div>
      </form>
    </Dialog>
  );
}

/** What to do, which way it is off, by how much, and why. */
function Verdict({ assessment }: { readonly assessment: Assessment }) {
  const { verdict, direction, biasPercent, titreMl, reason, action } = assessment;
  const isCalm = verdict === 'carry-on' || verdict === 'note';
  return (
    <div
      role="status"
      className={`mt-3 border-l-4 px-3 py-2 ${isCalm ? 'border-leaf bg-leaf-wash' : 'border-blush bg-blush-wash'}`}
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
