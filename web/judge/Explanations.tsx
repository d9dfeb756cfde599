import { figureText, roundHalfEven } from '#core/measurement';
import { explainRun } from '#core/explanation';
import type { Judgement } from '#core/titration/judging';
import type { RunState } from '#core/titration/run';

/** What would explain a result out of line, the likeliest first; nothing while all is in line. */
export function Explanations({
  run,
  judgement,
}: {
  readonly run: RunState;
  readonly judgement: Judgement;
}) {
  const diagnosis = explainRun(run, judgement);
  if (!diagnosis?.isOutOfLine) return null;
  const { explanations } = diagnosis;
  return (
    <section
      aria-labelledby="explanations"
      className="mb-5 border-l-4 border-blush bg-blush-wash px-4 py-3"
    >
      <h2 id="explanations" className="text-lg font-bold">
        {explanations.length > 0
          ? 'What would explain it'
          : 'Out of line, and no known slip explains it'}
      </h2>
      {explanations.length > 0 ? (
        <ol className="mt-1 flex flex-col gap-3">
          {explanations.map(({ id, name, detail, check, molarityMolPerL }) => (
            <li key={id}>
              <p className="font-semibold">{name}</p>
              <p>
                If {detail}:{' '}
                <span className="font-mono">{figureText(roundHalfEven(molarityMolPerL, 5))}</span>{' '}
                mol/L.
              </p>
              <p className="text-ink-soft">{check}</p>
            </li>
          ))}
        </ol>
      ) : (
        <p>Go through weighings, readings and the lot once more before you certify.</p>
      )}
      <p className="mt-2 text-sm text-ink-soft">Nothing is changed by this.</p>
    </section>
  );
}
