import type { HazardBand } from '#core/chemistry';
import { numberIn } from '../ui/numberIn';
import { QuantityField, TextField } from '../ui/fields';
import { hazardCodesIn } from '../ui/hazardCodes';
import { fieldsOf } from '../ui/useTyped';
import { Rows } from './Rows';
import { figureOf } from './typedFigures';

/** A band of hazards as a form holds it. */
export interface TypedBand {
  /** Empty for a solution of any strength. */
  readonly fromPercent: string;
  readonly codes: string;
}

export function typedBands(bands: readonly HazardBand[]): readonly TypedBand[] {
  return bands.map(({ fromPercent, codes }) => ({
    fromPercent: figureOf(fromPercent),
    codes: codes.join(', '),
  }));
}

/** The same as an entry holds it; a code that nobody knows stays, for the contract to refuse. */
export function bandsOf(typed: readonly TypedBand[]) {
  return typed.map(({ fromPercent, codes }) => {
    const { codes: known, unknown } = hazardCodesIn(codes);
    return {
      fromPercent: fromPercent.trim() === '' ? 0 : numberIn(fromPercent),
      codes: [...known, ...unknown],
    };
  });
}

interface HazardFieldsProps {
  readonly value: readonly TypedBand[];
  readonly error: string | undefined;
  readonly onChange: (bands: readonly TypedBand[]) => void;
}

/** From which content on which hazards hold, as the safety data sheet states them. */
export function HazardFields({ value, error, onChange }: HazardFieldsProps) {
  return (
    <Rows
      legend="Hazards, from its safety data sheet"
      hint="A line for each content from which further statements hold; without a content they hold for every solution of it."
      one="line"
      items={value}
      empty={{ fromPercent: '', codes: '' }}
      error={error}
      onChange={onChange}
    >
      {(band, change) => {
        const field = fieldsOf(band, change);
        return (
          <div className="grid grid-cols-1 gap-3 sm:grid-cols-[160px_minmax(0,1fr)]">
            <QuantityField label="From" unit="% m/m" {...field('fromPercent')} />
            <TextField label="Statements" placeholder="H314, H290" {...field('codes')} />
          </div>
        );
      }}
    </Rows>
  );
}
