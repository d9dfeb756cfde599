import type { Right } from '#core/rights';
import { RIGHT_TEXTS, RIGHTS } from '#core/rights';
import { CheckField } from '../ui/fields';

/** What somebody may, a box for each right. */
export function RightsFields({
  chosen,
  onChange,
}: {
  readonly chosen: readonly Right[];
  readonly onChange: (rights: Right[]) => void;
}) {
  return (
    <fieldset className="flex flex-col gap-3">
      <legend className="mb-2 font-semibold">May</legend>
      {RIGHTS.map((right) => (
        <CheckField
          key={right}
          label={RIGHT_TEXTS[right].name}
          hint={RIGHT_TEXTS[right].means}
          checked={chosen.includes(right)}
          onChange={(event) => {
            onChange(
              RIGHTS.filter((one) => (one === right ? event.target.checked : chosen.includes(one))),
            );
          }}
        />
      ))}
    </fieldset>
  );
}
