import { QuantityField, SelectField } from '../ui/fields';
import type { TypedDuration } from './typedFigures';

const UNITS: readonly (readonly [TypedDuration['unit'], string])[] = [
  ['days', 'days'],
  ['weeks', 'weeks'],
  ['months', 'months'],
];

interface KeepsFieldProps {
  readonly label: string;
  readonly hint?: string;
  readonly value: TypedDuration;
  readonly error: string | undefined;
  readonly onChange: (duration: TypedDuration) => void;
}

/** How long something keeps: a number of days, weeks or months. */
export function KeepsField({ label, hint, value, error, onChange }: KeepsFieldProps) {
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_140px] gap-3">
      <QuantityField
        label={label}
        {...(hint === undefined ? {} : { hint })}
        error={error}
        value={value.count}
        onText={(count) => {
          onChange({ ...value, count });
        }}
      />
      <SelectField
        label="Unit"
        options={UNITS}
        value={value.unit}
        onText={(unit) => {
          onChange({ ...value, unit: unit as TypedDuration['unit'] });
        }}
      />
    </div>
  );
}
