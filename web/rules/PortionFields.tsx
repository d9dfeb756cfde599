import type { Method } from '#core/chemistry';
import { parseDecimal } from '#core/measurement';
import { CheckField, QuantityField } from '../ui/fields';

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
  const number = (text: string): number => Number(parseDecimal(text) ?? Number.NaN);
  return [
    ...(typed.isWeighed
      ? [{ kind: 'weighed' as const, massG: [number(typed.leastG), number(typed.mostG)] as const }]
      : []),
    ...(typed.isAliquot
      ? [
          {
            kind: 'aliquot' as const,
            standardMolarityMolPerL: number(typed.molarity),
            volumeMl: [number(typed.leastMl), number(typed.mostMl)] as const,
          },
        ]
      : []),
  ];
}

/** Whether a standard is weighed or taken as aliquots, and how much of it. */
export function PortionFields({
  portions,
  mayWeigh,
  error,
  onChange,
}: {
  readonly portions: TypedPortions;
  /** What stands in the burette, or is titrated back, is a solution. */
  readonly mayWeigh: boolean;
  readonly error: string | undefined;
  readonly onChange: (portions: TypedPortions) => void;
}) {
  const figure = (key: keyof TypedPortions, label: string, unit: string) => (
    <QuantityField
      label={label}
      unit={unit}
      value={String(portions[key])}
      onChange={(event) => {
        onChange({ ...portions, [key]: event.target.value });
      }}
    />
  );
  const choice = (key: 'isWeighed' | 'isAliquot', label: string) => (
    <CheckField
      label={label}
      checked={portions[key]}
      onChange={(event) => {
        onChange({ ...portions, [key]: event.target.checked });
      }}
    />
  );
  return (
    <fieldset className="col-span-full">
      <legend className="font-bold">Into each flask</legend>
      {mayWeigh && (
        <div className="grid grid-cols-1 items-end gap-4 lg:grid-cols-[minmax(0,260px)_repeat(3,minmax(0,180px))]">
          {choice('isWeighed', 'standard, weighed')}
          {portions.isWeighed && (
            <>
              {figure('leastG', 'Mass from', 'g')}
              {figure('mostG', 'Mass to', 'g')}
            </>
          )}
        </div>
      )}
      <div className="mt-2 grid grid-cols-1 items-end gap-4 lg:grid-cols-[minmax(0,260px)_repeat(3,minmax(0,180px))]">
        {choice('isAliquot', 'aliquot of a solution')}
        {portions.isAliquot && (
          <>
            {figure('leastMl', 'Volume from', 'mL')}
            {figure('mostMl', 'Volume to', 'mL')}
            {figure('molarity', 'Its molarity, about', 'mol/L')}
          </>
        )}
      </div>
      {error !== undefined && (
        <p role="alert" className="mt-2 font-semibold text-blush">
          {error}
        </p>
      )}
    </fieldset>
  );
}
