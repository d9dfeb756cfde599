import type { ReactNode } from 'react';
import type { Method } from '#core/chemistry';
import { CheckField, QuantityField } from '../ui/fields';
import { numberIn } from '../ui/numberIn';
import { fieldsOf } from '../ui/useTyped';

/** How the standard comes into the flasks, as a form holds it. */
export interface TypedPortions {
  readonly isWeighed: boolean;
  readonly leastG: string;
  readonly mostG: string;
  readonly isAliquot: boolean;
  readonly leastMl: string;
  readonly mostMl: string;
  readonly molarity: string;
}

export function typedPortions({ portions }: Method): TypedPortions {
  const weighed = portions.find((one) => one.kind === 'weighed');
  const aliquot = portions.find((one) => one.kind === 'aliquot');
  return {
    isWeighed: weighed !== undefined,
    leastG: String(weighed?.massG[0] ?? ''),
    mostG: String(weighed?.massG[1] ?? ''),
    isAliquot: aliquot !== undefined,
    leastMl: String(aliquot?.volumeMl[0] ?? ''),
    mostMl: String(aliquot?.volumeMl[1] ?? ''),
    // A sixtieth of a mole is written with as many digits as anybody weighs.
    molarity: aliquot ? String(Number(aliquot.standardMolarityMolPerL.toPrecision(4))) : '',
  };
}

/** The portions as a method holds them; not a number where something else was typed, which the contract refuses. */
export function portionsOf(typed: TypedPortions): Method['portions'] {
  return [
    ...(typed.isWeighed
      ? [
          {
            kind: 'weighed' as const,
            massG: [numberIn(typed.leastG), numberIn(typed.mostG)] as const,
          },
        ]
      : []),
    ...(typed.isAliquot
      ? [
          {
            kind: 'aliquot' as const,
            standardMolarityMolPerL: numberIn(typed.molarity),
            volumeMl: [numberIn(typed.leastMl), numberIn(typed.mostMl)] as const,
          },
        ]
      : []),
  ];
}

interface PortionFieldsProps {
  readonly value: TypedPortions;
  /** What stands in the burette, or is titrated back, is a solution. */
  readonly mayWeigh: boolean;
  readonly error: string | undefined;
  readonly onChange: (portions: TypedPortions) => void;
}

/** Whether a standard is weighed or taken as aliquots, and how much of it. */
export function PortionFields({ value, mayWeigh, error, onChange }: PortionFieldsProps) {
  const field = fieldsOf(value, (changes) => {
    onChange({ ...value, ...changes });
  });
  return (
    <fieldset className="col-span-full">
      <legend className="font-bold">Into each flask</legend>
      {mayWeigh && (
        <Way
          label="standard, weighed"
          isTaken={value.isWeighed}
          onTick={(isWeighed) => {
            onChange({ ...value, isWeighed });
          }}
        >
          <QuantityField label="Mass from" unit="g" {...field('leastG')} />
          <QuantityField label="Mass to" unit="g" {...field('mostG')} />
        </Way>
      )}
      <Way
        label="aliquot of a solution"
        isTaken={value.isAliquot}
        onTick={(isAliquot) => {
          onChange({ ...value, isAliquot });
        }}
      >
        <QuantityField label="Volume from" unit="mL" {...field('leastMl')} />
        <QuantityField label="Volume to" unit="mL" {...field('mostMl')} />
        <QuantityField label="Its molarity, about" unit="mol/L" {...field('molarity')} />
      </Way>
      {error !== undefined && (
        <p role="alert" className="mt-2 font-semibold text-blush">
          {error}
        </p>
      )}
    </fieldset>
  );
}

interface WayProps {
  readonly label: string;
  readonly isTaken: boolean;
  readonly onTick: (isTaken: boolean) => void;
  readonly children: ReactNode;
}

/** One way in which the standard may come into the flasks, with its figures once it is taken. */
function Way({ label, isTaken, onTick, children }: WayProps) {
  return (
    <div className="mt-2 grid grid-cols-1 items-end gap-4 lg:grid-cols-[minmax(0,260px)_repeat(3,minmax(0,180px))]">
      <CheckField label={label} checked={isTaken} onTick={onTick} />
      {isTaken && children}
    </div>
  );
}
