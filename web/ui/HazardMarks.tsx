import type { Hazards } from '#core/label';
import { Pictogram } from './Pictogram';
import { Sentence } from './ShortName';

/** Pictograms with their words, the signal word and the statements. */
export function HazardMarks({
  hazards,
  of,
  isSourceSaid = false,
}: {
  readonly hazards: Hazards;
  /** What they are the hazards of: `NaOH, as received`. */
  readonly of: string;
  /** Whether whoever shows them says what they are taken from. */
  readonly isSourceSaid?: boolean;
}) {
  const { signal, pictograms, statements, precautions, sheet } = hazards;
  if (statements.length === 0) return null;
  return (
    <div className="text-sm">
      <p className="font-semibold">
        <Sentence text={of} />
        {signal && <span className="text-blush">: {signal}</span>}
      </p>
      {pictograms.length > 0 && (
        <p className="my-1 flex gap-1.5">
          {pictograms.map((pictogram) => (
            <Pictogram key={pictogram} of={pictogram} className="size-12" />
          ))}
        </p>
      )}
      <ul className="leading-snug">
        {statements.map(({ code, text }) => (
          <li key={code}>
            <span className="font-mono">{code}</span> {text}.
          </li>
        ))}
      </ul>
      {precautions.length > 0 && (
        <details className="mt-1">
          <summary className="cursor-pointer py-3.5 font-semibold lg:py-0.5">
            What to do about it
          </summary>
          <ul className="leading-snug">
            {precautions.map(({ code, text }) => (
              <li key={code}>
                <span className="font-mono">{code}</span> {text}.
              </li>
            ))}
          </ul>
        </details>
      )}
      {sheet !== null && <p className="mt-0.5 text-ink-soft">By its safety data sheet: {sheet}.</p>}
      {sheet === null && !isSourceSaid && (
        <p className="mt-0.5 text-ink-soft">
          From the catalogue: check against your safety data sheet.
        </p>
      )}
    </div>
  );
}
