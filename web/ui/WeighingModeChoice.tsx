/** How a net mass is got. */
export type WeighingMode = 'tared' | 'by-difference';

const CHOICES = [
  { value: 'tared', name: 'tared' },
  { value: 'by-difference', name: 'by difference' },
] as const;

/** The choice between a tared boat and a weighing bottle before and after. */
export function WeighingModeChoice({
  mode,
  onMode,
}: {
  readonly mode: WeighingMode;
  readonly onMode: (mode: WeighingMode) => void;
}) {
  return (
    <fieldset className="mt-2 flex items-center gap-5 text-[15px]">
      <legend className="sr-only">How it is weighed</legend>
      {CHOICES.map(({ value, name }) => (
        <label key={value} className="flex min-h-10 items-center gap-2">
          <input
            type="radio"
            name="weighing-mode"
            className="size-5 accent-violet"
            checked={mode === value}
            onChange={() => {
              onMode(value);
            }}
          />
          {name}
        </label>
      ))}
    </fieldset>
  );
}
