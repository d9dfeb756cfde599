import { useState } from 'react';
import { equivalentsIn } from '#core/chemistry';
import { molarityOfNormality } from '#core/label';
import { paperUnitsOf } from '#core/laboratory';
import { parseDecimal } from '#core/measurement';
import { useSession } from './session';
import { optionsOf, QuantityField, SelectField } from '../ui/fields';

interface NormalityFieldProps {
  readonly substanceId: string;
  /** Takes the molarity that follows from what is typed. */
  readonly onMolarity: (molarity: string) => void;
}

/** Where the house rule gives normalities: takes one, and fills in the molarity that it is for a reaction. */
export function NormalityField({ substanceId, onMolarity }: NormalityFieldProps) {
  const { laboratory } = useSession();
  const [typed, setTyped] = useState('');
  const [chosen, setChosen] = useState('');
  const unit = paperUnitsOf(laboratory.rules).normality;
  const known = equivalentsIn(substanceId);
  const [first] = known;
  if (unit === null || !first) return null;
  const { perMole, reaction } = known.find((one) => String(one.perMole) === chosen) ?? first;
  const hand = (text: string, equivalents: number): void => {
    const value = Number(parseDecimal(text) ?? 0);
    if (value > 0) onMolarity(molarityOfNormality(value, equivalents));
  };
  return (
    <>
      <QuantityField
        label="Or its normality"
        unit={unit}
        hint={`It fills in the molarity: ${String(perMole)} to the mole, as in ${reaction}.`}
        value={typed}
        onText={(text) => {
          setTyped(text);
          hand(text, perMole);
        }}
      />
      {known.length > 1 && (
        <SelectField
          label="To the mole, for the reaction"
          options={optionsOf(
            known.map((one) => ({ ...one, id: String(one.perMole) })),
            (one) => `${String(one.perMole)}, ${one.reaction}`,
          )}
          value={String(perMole)}
          onText={(text) => {
            setChosen(text);
            hand(typed, Number(text));
          }}
        />
      )}
    </>
  );
}
