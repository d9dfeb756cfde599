import { useState } from 'react';
import { findSubstance } from '#core/chemistry';
import { figureText, parseDecimal } from '#core/measurement';
import type { LotState } from '#core/reagent';
import { dryness } from '#core/reagent';
import type { NewFact } from '#contract';
import { useAddToRecord } from '../app/entering';
import { usePersonName } from '../app/records';
import { useSession } from '../app/session';
import { useNow } from '../app/useNow';
import { Button } from '../ui/Button';
import { QuantityField } from '../ui/fields';
import { Form } from '../ui/Form';
import { FormError } from '../ui/FormError';
import { clockText, instantText } from '../ui/typeset';

interface DryingLogProps {
  readonly state: LotState;
}

/** Put in, taken out, and whether it is dry enough to be weighed. */
export function DryingLog({ state }: DryingLogProps) {
  const { laboratory } = useSession();
  const nameOf = usePersonName();
  const at = (instant: string): string => instantText(instant, laboratory.timeZone);
  return (
    <section aria-label="Drying log">
      <h2 className="mb-2 text-lg font-bold">Dry enough?</h2>
      <Verdict state={state} />
      <Oven state={state} />
      <ol className="mt-3 text-[15px] text-ink-soft">
        {state.drying.toReversed().map(({ putIn, takenOut, temperatureC }) => (
          <li key={putIn.factId}>
            {figureText(temperatureC)} °C: in {at(putIn.at)}, {nameOf(putIn.by)};{' '}
            {takenOut ? `out ${at(takenOut.at)}, ${nameOf(takenOut.by)}` : 'still in'}
          </li>
        ))}
      </ol>
    </section>
  );
}

function Verdict({ state }: DryingLogProps) {
  const { laboratory } = useSession();
  const now = useNow(20_000);
  const { verdict, sentence, weighableFrom } = dryness(dryingOf(state), state.drying, now);
  const isDry = verdict === 'dry' || verdict === 'no-oven';
  return (
    <p
      className={`border-l-4 px-3 py-1 ${isDry ? 'border-leaf bg-leaf-wash' : 'border-straw bg-straw-wash'}`}
    >
      {sentence}
      {weighableFrom !== null &&
        verdict !== 'dry' &&
        ` It may be weighed from ${clockText(weighableFrom, now, laboratory.timeZone)}.`}
    </p>
  );
}

/** Puts it into the oven, or takes it out; nothing for what is not dried in one. */
function Oven({ state }: DryingLogProps) {
  const add = useAddToRecord();
  const drying = dryingOf(state);
  const [temperature, setTemperature] = useState(
    drying?.kind === 'oven' ? String(drying.temperatureC[0]) : '',
  );
  if (drying?.kind !== 'oven') return null;
  const enter = (fact: NewFact) => (): void => {
    add.mutate({ recordId: state.id, basedOn: state.version, fact });
  };
  const temperatureC = parseDecimal(temperature) ?? temperature;
  return (
    <>
      {state.drying.at(-1)?.takenOut === null ? (
        <Button
          look="primary"
          className="mt-3"
          onClick={enter({ kind: 'lot.taken-out', body: {} })}
        >
          Taken out of the oven
        </Button>
      ) : (
        <Form
          className="mt-3 flex items-end gap-3"
          onSubmit={enter({ kind: 'lot.put-to-dry', body: { temperatureC } })}
        >
          <div className="w-36">
            <QuantityField label="Oven at" unit="°C" value={temperature} onText={setTemperature} />
          </div>
          <Button type="submit">Put in to dry</Button>
        </Form>
      )}
      <FormError message={add.error?.message} />
    </>
  );
}

function dryingOf({ lot }: LotState) {
  return findSubstance(lot.substanceId, lot.own)?.drying ?? null;
}
