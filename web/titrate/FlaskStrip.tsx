import type { Judgement } from '#core/titration/judging';
import type { RunState } from '#core/titration/run';
import { flaskUnderBurette } from '#core/titration/run';
import { arrangementOf, fillVerb } from '#core/titration/setUp';
import type { FlaskActions } from './FlaskColumn';
import { FlaskColumn } from './FlaskColumn';

/** The flasks of a run beside each other. */
export function FlaskStrip({
  run,
  judgement,
  current,
  actions,
}: {
  readonly run: RunState;
  readonly judgement: Judgement;
  /** The flask that comes next. */
  readonly current: number | null;
  readonly actions: FlaskActions;
}) {
  return (
    <div
      data-cut="scrolls sideways"
      className="relative flex min-h-0 flex-1 overflow-x-auto border-y border-rule"
    >
      {run.flasks.length === 0 && <NoFlaskYet run={run} />}
      <div className="flex min-h-0 flex-1 divide-x divide-rule">
        {judgement.replicates.map((replicate) => (
          <FlaskColumn
            key={replicate.flask.number}
            run={run}
            replicate={replicate}
            isCurrent={current === replicate.flask.number}
            mayTitrate={!flaskUnderBurette(run)}
            actions={actions}
          />
        ))}
      </div>
    </div>
  );
}

function NoFlaskYet({ run }: { readonly run: RunState }) {
  return (
    <p className="self-center px-4 text-lg text-ink-soft">
      {fillVerb(arrangementOf(run.references))} all flasks first, number them, add to all:{' '}
      {run.references.method.medium}; then titrate one after the other.
    </p>
  );
}
