import { useId } from 'react';
import type { Method } from '#core/chemistry';
import { TextField } from '../ui/fields';

type Colours = Method['colours'];

const MOMENTS = [
  ['before', 'Colour before'],
  ['endPoint', 'Colour wanted'],
  ['overshot', 'Colour overshot'],
] as const satisfies readonly (readonly [keyof Colours, string])[];

interface ColourFieldsProps {
  readonly value: Colours;
  readonly error: string | undefined;
  readonly onChange: (colours: Colours) => void;
}

/** What the flask looks like, in words and as a swatch: before the end, at it, and beyond it. */
export function ColourFields({ value: colours, error, onChange }: ColourFieldsProps) {
  const id = useId();
  return (
    <fieldset className="col-span-full grid grid-cols-1 gap-4 md:grid-cols-3">
      <legend className="sr-only">Colours of the flask</legend>
      {MOMENTS.map(([moment, label]) => (
        <div key={moment} className="flex items-end gap-2">
          <div className="grow">
            <TextField
              label={label}
              maxLength={60}
              value={colours[moment].word}
              aria-describedby={error === undefined ? undefined : id}
              aria-invalid={error !== undefined}
              onChange={(event) => {
                onChange({
                  ...colours,
                  [moment]: { ...colours[moment], word: event.target.value },
                });
              }}
            />
          </div>
          <input
            type="color"
            aria-label={`${label}, its shade`}
            className="h-12 w-14 rounded-md border border-rule-strong bg-sheet p-1"
            value={colours[moment].css}
            onChange={(event) => {
              onChange({ ...colours, [moment]: { ...colours[moment], css: event.target.value } });
            }}
          />
        </div>
      ))}
      {error !== undefined && (
        <p id={id} role="alert" className="col-span-full font-semibold text-blush">
          {error}
        </p>
      )}
    </fieldset>
  );
}
