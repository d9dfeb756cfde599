import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { Own } from '#core/chemistry';
import { findSubstance, shortNameOf } from '#core/chemistry';
import type { EquipmentState } from '#core/metrology';
import type { BottleState, LotState } from '#core/reagent';
import { knownMolarity, purityText } from '#core/reagent';
import type { RunReferences } from '#core/titration/setUp';
import { optionsOf, SelectField } from '../ui/fields';
import type { MethodOption } from './methodOptions';

interface ChoiceFieldProps<T> {
  readonly label: string;
  readonly items: readonly T[];
  readonly chosen: T;
  /** What an item is called in the list. */
  readonly nameOf: (item: T) => string;
  readonly hint?: ReactNode;
  readonly error: string | undefined;
  readonly onChoose: (id: string) => void;
}

/** One of several records. */
export function ChoiceField<T extends { readonly id: string }>({
  label,
  items,
  chosen,
  nameOf,
  hint,
  error,
  onChoose,
}: ChoiceFieldProps<T>) {
  return (
    <SelectField
      label={label}
      value={chosen.id}
      error={error}
      hint={hint}
      options={optionsOf(items, nameOf)}
      onText={onChoose}
    />
  );
}

/** One of several instruments, with what it is good for; what to do when there is none. */
export function InstrumentField({
  what,
  chosen,
  ...field
}: Omit<ChoiceFieldProps<EquipmentState>, 'chosen' | 'nameOf' | 'hint'> & {
  /** `A pipette`. */
  readonly what: string;
  readonly chosen: EquipmentState | undefined;
}) {
  return chosen ? (
    <ChoiceField
      {...field}
      chosen={chosen}
      nameOf={({ equipment }) => equipment.name}
      hint={rangeOf(chosen)}
    />
  ) : (
    <p>
      <Link className="text-violet underline" to="/equipment">
        {what} is missing: add one.
      </Link>
    </p>
  );
}

/** What an instrument shows or holds. */
function rangeOf({ equipment }: EquipmentState): string {
  switch (equipment.type) {
    case 'balance':
      return `Shows ${equipment.readabilityG} g`;
    case 'burette':
      return `${equipment.capacityMl} mL, ± ${equipment.toleranceMl} mL`;
    case 'glassware':
      return `${equipment.volumeMl} mL, ± ${equipment.toleranceMl} mL`;
    case 'thermometer':
    case 'heater':
      return '';
  }
}

/** What is known of a standard. */
export function standardHint(standard: RunReferences['standard']): string {
  if (standard.kind === 'lot') {
    return `Purity ${purityText(standard.lot.lot)}`;
  }
  return molarityHint(standard.bottle);
}

/** What is known of a solution's molarity. */
export function molarityHint(bottle: BottleState): string {
  const known = knownMolarity(bottle);
  return known ? `${known.molarity} ± ${known.expandedUncertainty} mol/L` : '';
}

/** A lot in a list. */
export function lotName({ lot }: LotState): string {
  return `${shortNameOf(lot)}, lot ${lot.lotNumber}`;
}

/** A bottle in a list of bottles. */
export function bottleName(bottle: BottleState): string {
  return `${bottle.code}, ${shortNameOf(bottle)} ${bottle.nominalMolarity ?? ''} mol/L`;
}

/** A bottle in a list of other things. */
export function solutionName(bottle: BottleState): string {
  return `bottle ${bottleName(bottle)}`;
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
