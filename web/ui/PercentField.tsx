import { useState } from 'react';
import { figureText, fractionOfPercent, parseDecimal, percentOfFraction } from '#core/measurement';
import { QuantityField } from './fields';

interface PercentFieldProps {
  readonly label: string;
  /** What it is a part of, for the part that is shown: `Mass fraction`. */
  readonly of: string;
  /** How it may be printed: `99.98`. */
  readonly example: string;
  /** The part of 1 to begin with; empty where there is none. */
  readonly fraction: string;
  readonly error: string | undefined;
  /** Takes the part of 1; what is no number as it was typed. */
  readonly onFraction: (fraction: string) => void;
}

/** A part of a whole, typed in per cent as it is printed, with the part of 1 that it is. */
export function PercentField(props: PercentFieldProps) {
  const { label, of, example, fraction, error, onFraction } = props;
  const [typed, setTyped] = useState(() => {
    const given = parseDecimal(fraction);
    return given === null ? fraction : percentOfFraction(given);
  });
  const percent = parseDecimal(typed);
  return (
    <QuantityField
      label={label}
      unit="%"
      hint={
        percent === null
          ? `As it is printed: ${example}.`
          : `${of} ${figureText(fractionOfPercent(percent))}.`
      }
      error={error}
      value={typed}
      onText={(text) => {
        const parsed = parseDecimal(text);
        setTyped(text);
        onFraction(parsed === null ? text.trim() : fractionOfPercent(parsed));
      }}
    />
  );
}
