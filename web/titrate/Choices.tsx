import { Link } from 'react-router';
import type { Own, Procedure } from '#core/chemistry';
import { findSubstance, shortNameOf } from '#core/chemistry';
import type { EquipmentState } from '#core/metrology';
import type { BottleState } from '#core/reagent';
import { bottleChoice, equipmentChoice } from '../app/choices';
import type { Choice } from '../ui/ChoiceField';
import { ChoiceField } from '../ui/ChoiceField';
import type { MethodOption } from './methodOptions';
import { isPossible } from './methodOptions';

interface InstrumentFieldProps {
  readonly label: string;
  /** `A pipette`. */
  readonly what: string;
  readonly items: readonly EquipmentState[];
  readonly chosen: EquipmentState | undefined;
  readonly error: string | undefined;
  readonly onChoose: (id: string) => void;
}

/** One of several instruments; what to do when there is none. */
export function InstrumentField({ what, items, chosen, ...field }: InstrumentFieldProps) {
  return chosen ? (
    <ChoiceField {...field} items={items.map(equipmentChoice)} chosenId={chosen.id} />
  ) : (
    <p>
      <Link className="text-violet underline" to="/equipment">
        {what} is missing: add one.
      </Link>
    </p>
  );
}

/** A way to standardize, and whether there is what it takes. */
export function methodChoice(option: MethodOption): Choice {
  const { key, name, choice, takes, lots, bottles, method } = option;
  const standards = takes === 'lot' ? lots.length : bottles.length;
  const standard = shortNameOf({ substanceId: method.standardId, own: method.own });
  const words = isPossible(option)
    ? `${standard}, ${takes === 'lot' ? 'weighed' : 'pipetted'}: ${String(standards)} at hand`
    : `no ${standard} on the shelf`;
  const text = `${choice.kind === 'own' ? 'own: ' : ''}${name}`;
  return { id: key, name: text, text, words };
}

/** What a substance is called. */
export function substanceName(substanceId: string, own?: Own): string {
  return findSubstance(substanceId, own)?.name ?? substanceId;
}

/** What to do when the shelf lacks a standard, or what a method adds in excess. */
export function Missing({
  takes,
  name,
}: {
  readonly takes: MethodOption['takes'];
  readonly name: string;
}) {
  return (
    <p className="col-span-full rounded-md border-l-4 border-straw bg-straw-wash px-4 py-3">
      {takes === 'lot'
        ? `There is no lot of ${name}. `
        : `There is no solution of ${name} whose molarity is known. `}
      <Link
        className="font-semibold text-violet underline"
        to={takes === 'lot' ? '/lots' : '/prepare'}
      >
        {takes === 'lot' ? 'Register a lot' : 'Prepare one'}
      </Link>
    </p>
  );
}

interface ExcessChoiceProps {
  /** Of a method or an analysis; nothing is asked without one. */
  readonly excess: Procedure['excess'];
  readonly own: Own | undefined;
  readonly bottles: readonly BottleState[];
  readonly bottle: BottleState | undefined;
  readonly pipettes: readonly EquipmentState[];
  readonly pipette: EquipmentState | undefined;
  readonly around: Parameters<typeof bottleChoice>[1];
  readonly errorAt: (field: string) => string | undefined;
  readonly onChoose: (changes: { readonly excessId?: string; readonly pipetteId?: string }) => void;
}

/** For a back-titration, what is added in excess and with what. */
export function ExcessChoice({ excess, own, bottles, bottle, ...props }: ExcessChoiceProps) {
  const { pipettes, pipette, around, errorAt, onChoose } = props;
  if (!excess) return null;
  if (!bottle) return <Missing takes="bottle" name={substanceName(excess.substanceId, own)} />;
  return (
    <>
      <ChoiceField
        label="In excess"
        items={bottles.map((one) => bottleChoice(one, around))}
        chosenId={bottle.id}
        error={errorAt('excess')}
        onChoose={(excessId) => {
          onChoose({ excessId });
        }}
      />
      <InstrumentField
        label="Excess with"
        what="A pipette"
        items={pipettes}
        chosen={pipette}
        error={errorAt('pipette')}
        onChoose={(pipetteId) => {
          onChoose({ pipetteId });
        }}
      />
    </>
  );
}

/** A temperature that nobody measures. */
export const NOT_MEASURED: Choice = {
  id: 'not-measured',
  name: 'not measured',
  text: 'not measured',
  words: 'as warm as the room',
};
