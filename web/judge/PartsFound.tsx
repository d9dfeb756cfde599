import type { FoundPart, FoundParts } from '#core/titration/judging';
import { contentText } from '#core/titration/judging';
import type { AnalysisRun } from '#core/titration/run';
import { capitalized } from '../ui/typeset';
import { WorkingView } from './WorkingView';

/** What two ends tell beside the whole: its parts, in every case that may hold. */
export function PartsFound({
  series,
  parts: { always, cases },
}: {
  readonly series: AnalysisRun;
  readonly parts: FoundParts;
}) {
  const { twoEnds } = series.references.method;
  if (!twoEnds) return null;
  const told = [always, ...cases].flat();
  return (
    <div className="mb-3">
      <PartLines parts={always} />
      {cases.length > 1 && (
        <p className="mt-2">The two ends do not tell these cases apart, within U:</p>
      )}
      {cases.map((parts, i) => (
        <div key={i} className={cases.length > 1 ? 'mb-2 border-l-4 border-straw pl-3' : ''}>
          <PartLines parts={parts} />
        </div>
      ))}
      {cases.length === 0 && (
        <p className="border-l-4 border-straw bg-straw-wash px-3 py-1.5">
          {series.flasks.some(({ firstEnd }) => firstEnd)
            ? 'No case fits both ends: a part would be less than nothing by more than its U. Look at the readings, and at what else takes the titrant.'
            : 'The first end of no titration that counts is on record, so that no part is told.'}
        </p>
      )}
      {told.length > 0 && (
        <details>
          <summary className="flex min-h-12 items-center font-semibold text-violet underline underline-offset-4 lg:min-h-10">
            How the parts follow
          </summary>
          {told.map(({ part, working }, i) => (
            <section key={i} aria-label={part.name} className="mb-4">
              <h3 className="font-bold">{capitalized(part.name)}</h3>
              <WorkingView steps={working} />
            </section>
          ))}
        </details>
      )}
    </div>
  );
}

function PartLines({ parts }: { readonly parts: readonly FoundPart[] }) {
  return (
    <dl className="gap-x-4 sm:grid sm:grid-cols-[max-content_minmax(0,1fr)]">
      {parts.map(({ part, series, found }) => (
        <div key={part.id} className="sm:contents">
          <dt className="text-ink-soft">{part.name}</dt>
          <dd className="font-semibold">{contentText(series, found)}</dd>
        </div>
      ))}
    </dl>
  );
}
