import type { Correction } from '#core/record';
import { instantText } from './typeset';

/** What was put right of a record: when, by whom, why. */
export function CorrectionList({
  corrections,
  nameOf,
  timeZone,
}: {
  readonly corrections: readonly Correction<unknown>[];
  readonly nameOf: (id: string) => string;
  readonly timeZone: string;
}) {
  if (corrections.length === 0) return null;
  return (
    <section className="mt-6">
      <h2 className="font-bold">Corrected</h2>
      <ul className="mt-1 text-[15px]">
        {corrections.map(({ factId, by, at, reason }) => (
          <li key={factId}>
            {reason}{' '}
            <span className="text-ink-soft">
              ({nameOf(by)}, {instantText(at, timeZone)})
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
