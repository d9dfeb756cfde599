import type { Colour } from '#core/chemistry';
import { figureText, roundHalfEven } from '#core/measurement';
import type { Flask, RunState } from '#core/titration/run';
import { awaitedFirstEnd, forecastFlask } from '#core/titration/figures';
import { isBlank } from '#core/titration/run';

/** The colours to look for, and what a drop is worth. */
export function EndPointHint({ run, flask }: { readonly run: RunState; readonly flask: Flask }) {
  const { colours, course } = run.references.method;
  const first = awaitedFirstEnd(run.references.method, flask)?.colours;
  const { dropPercent } = forecastFlask(run, flask, null);
  const before = flask.provisional.at(-1);
  const shade = run.flasks
    .flatMap(({ number, photographs }) => photographs.map((file) => ({ flask: number, file })))
    .at(-1);
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 text-[15px] text-ink-soft">
      <ol aria-label="Colours of the flask" className="flex flex-wrap items-center gap-y-1">
        {(first ? [first.before] : (course ?? [colours.before])).map((colour, i) => (
          <Swatch key={i} colour={colour} />
        ))}
        <Swatch word="wanted" colour={(first ?? colours).endPoint} isWanted />
        {!first && <Swatch word="overshot" colour={colours.overshot} />}
      </ol>
      {shade && (
        <a href={`/api/files/${shade.file.fileId}`} className="flex items-center gap-1.5">
          <img
            src={`/api/files/${shade.file.fileId}`}
            alt={`flask ${String(shade.flask)}, photographed as the shade to match`}
            className="size-12 rounded border border-rule-strong object-cover"
          />
          to match
        </a>
      )}
      {!isBlank(flask) && <span>one drop: {figureText(roundHalfEven(dropPercent, 2))} %</span>}
      {before && (
        <span className="font-semibold text-ink">
          written before a drop: <span className="font-mono">{figureText(before.value)}</span>
        </span>
      )}
    </div>
  );
}

interface SwatchProps {
  readonly word?: string;
  readonly colour: Colour;
  readonly isWanted?: boolean;
}

/** One colour of the strip with its word; the one that is wanted is marked by more than its colour. */
function Swatch({ word, colour, isWanted = false }: SwatchProps) {
  return (
    <li className="flex items-center gap-1.5 not-first:before:px-2 not-first:before:text-ink-soft not-first:before:content-['→']">
      <span
        aria-hidden="true"
        className={`inline-block rounded-full border ${isWanted ? 'mx-1.5 size-6 border-2 border-ink ring-2 ring-ink ring-offset-2' : 'size-5 border-rule-strong'}`}
        style={{ background: colour.css }}
      />
      <span className={isWanted ? 'font-bold text-ink' : ''}>
        {word === undefined ? colour.word : `${word}: ${colour.word}`}
      </span>
    </li>
  );
}
