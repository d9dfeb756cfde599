import type { PreparationState, StepState } from '#core/preparation';
import { useSession } from '../app/session';
import { useNow } from '../app/useNow';
import { clockText } from '../ui/typeset';
import { quantityText, WORKS } from './wording';

/** The steps as marks of a scale that fills from the top as they are done; a step that is pressed is shown. */
export function StepList({
  preparation,
  currentId,
  onChoose,
}: {
  readonly preparation: PreparationState;
  readonly currentId: string | null;
  readonly onChoose: (id: string) => void;
}) {
  return (
    <nav aria-label="Steps">
      <ol className="relative border-l-2 border-rule-strong">
        {preparation.steps.map((step) => (
          <li key={step.id}>
            <button
              type="button"
              aria-current={step.id === currentId ? 'step' : undefined}
              onClick={() => {
                onChoose(step.id);
              }}
              className={`relative flex min-h-12 w-full items-center gap-3 rounded-r-md py-1 pr-2 pl-5 text-left hover:bg-shade lg:min-h-11 ${step.id === currentId ? 'bg-sheet font-bold text-violet' : step.done ? 'text-ink-soft' : ''}`}
            >
              <Mark step={step} />
              <span className="min-w-0 flex-1 leading-tight">{WORKS[step.work]}</span>
              <Said step={step} />
            </button>
          </li>
        ))}
      </ol>
    </nav>
  );
}

/** The mark on the scale: filled when done, half when waiting, a dash when left out. */
function Mark({ step }: { readonly step: StepState }) {
  const { done, begun } = step;
  return (
    <svg
      viewBox="0 0 16 16"
      className="absolute top-1/2 -left-[9px] size-4 -translate-y-1/2"
      role="img"
      aria-label={done ? (done.isLeftOut ? 'left out' : 'done') : begun ? 'begun' : 'to do'}
    >
      <circle
        cx="8"
        cy="8"
        r="6"
        fill={done && !done.isLeftOut ? 'var(--color-leaf)' : 'var(--color-paper)'}
        stroke={done ? 'var(--color-leaf)' : 'var(--color-ink)'}
        strokeWidth="2"
      />
      {done?.isLeftOut && <path d="M4 8h8" stroke="var(--color-leaf)" strokeWidth="2" />}
      {!done && begun && <path d="M8 2a6 6 0 0 1 0 12z" fill="var(--color-ink)" />}
    </svg>
  );
}

/** What a step measured, or until when it waits. */
function Said({ step }: { readonly step: StepState }) {
  const { laboratory } = useSession();
  const now = useNow(20_000);
  const entries = step.entries.map(({ quantity }) => quantityText(quantity));
  if (entries.length > 0) {
    return (
      <span className={`font-mono text-sm ${entries.length > 1 ? 'text-blush' : 'text-ink'}`}>
        {entries.join(' or ')}
      </span>
    );
  }
  if (step.done === null && step.waitsUntil !== null) {
    return (
      <span className="font-mono text-sm text-ink">
        {clockText(step.waitsUntil, now, laboratory.timeZone)}
      </span>
    );
  }
  return null;
}
