import { RadioList } from './RadioList';

/** How a net mass is got. */
export type WeighingMode = 'tared' | 'by-difference';

const CHOICES = [
  { id: 'tared', name: 'tared' },
  { id: 'by-difference', name: 'by difference' },
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
    <RadioList
      legend="How it is weighed"
      items={CHOICES}
      chosenId={mode}
      onChoose={onMode}
      className="flex items-center gap-3 text-[15px]"
    />
  );
}
