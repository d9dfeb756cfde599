import type { RunState } from '#core/titration/run';
import { isAnalysis } from '#core/titration/setUp';
import { Link } from 'react-router';

/** The runs of a batch that one does not hold, this one among them, and the way to each. */
export function BatchParts({
  run: { id, setUp },
  page,
}: {
  readonly run: RunState;
  /** Which page of each run: its bench, or its judgement. */
  readonly page: '' | '/judge';
}) {
  const runIds = isAnalysis(setUp) ? (setUp.batch?.runIds ?? []) : [];
  if (runIds.length === 0) return null;
  return (
    <nav aria-label="Runs of the batch" className="flex shrink-0 flex-wrap items-center gap-x-4">
      {runIds.map((runId, i) => {
        const name = `Part ${String(i + 1)} of ${String(runIds.length)}`;
        return runId === id ? (
          <span key={runId} aria-current="page" className="font-bold">
            {name}
          </span>
        ) : (
          <Link
            key={runId}
            to={`/runs/${runId}${page}`}
            className="flex min-h-12 items-center font-semibold text-violet underline underline-offset-4 lg:min-h-8"
          >
            {name}
          </Link>
        );
      })}
    </nav>
  );
}
