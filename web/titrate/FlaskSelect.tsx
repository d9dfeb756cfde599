import type { Flask } from '#core/titration/run';
import { SelectField } from '../ui/fields';

/** Which flask is meant. */
export function FlaskSelect({
  flasks,
  chosen,
  onChoose,
}: {
  readonly flasks: readonly Flask[];
  readonly chosen: number;
  readonly onChoose: (flask: number) => void;
}) {
  return (
    <SelectField
      label="Flask"
      value={chosen}
      options={flasks.map(({ number }) => [String(number), number])}
      onText={(text) => {
        onChoose(Number(text));
      }}
    />
  );
}
