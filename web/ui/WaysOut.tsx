import type { Substance } from '#core/chemistry';
import type { HouseRules } from '#core/laboratory';
import { waysOut } from '#core/label';
import { Sentence } from './ShortName';

interface WaysOutProps {
  readonly substances: readonly Substance[];
  readonly waste: HouseRules['waste'];
  /** What else is done at the end. */
  readonly further: readonly string[];
}

/** Where everything goes when the work is over. */
export function WaysOut({ substances, waste, further }: WaysOutProps) {
  const ways = [
    ...waysOut(substances, { waste }),
    ...further,
    'Nothing is poured back into the bottle. Broken glass goes to its own bin.',
  ];
  return (
    <section className="text-[15px]">
      <h2 className="font-bold">Clean up</h2>
      <ul className="mt-1 list-disc space-y-1 pl-5">
        {ways.map((way) => (
          <li key={way}>
            <Sentence text={way} />
          </li>
        ))}
      </ul>
      <p className="mt-1 text-ink-soft">
        Local rules, the safety data sheet and the responsible person decide.
      </p>
    </section>
  );
}
