import type { Colour } from '#core/chemistry';
import { roundHalfEven } from '#core/measurement';
import type { Flask, RunState } from '#core/titration/run';
import { forecastFlask } from '#core/titration/figures';
import { isBlank } from '#core/titration/run';

/** The colours to look for, and what a drop is worth. */
export function EndPointHint({ run, flask }: { readonly run: RunState; readonly flask: Flask }) {
  const { colours } = run.references.method;
  const { dropPercent } = forecastFlask(run, flask, null);
  const before = flask.provisional.at(-1);
  const shade = run.flasks
    .flatMap(({ number, photographs }) => photographs.map((file) => ({ flask: number, file })))
    .at(-1);
  return (
    <p className="flex flex-wrap items-center gap-x-4 gap-y-1 text-[15px] text-ink-soft">
      <Swatch word="now" colour={colours.before} />
      <Swatch word="wanted" colour={colours.endPoint} />
      <Swatch word="overshot" colour={colours.overshot} />
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
      {!isBlank(flask) && <span>one drop: {roundHalfEven(dropPercent, 2)} %</span>}
      <span>burette holds until {run.references.burette.capacityMl}</span>
      {before && (
        <span className="font-semibold text-ink">
          written before a drop: <span className="font-mono">{before.value}</span>
        </span>
      )}
    </p>
  );
}

function Swatch({ word, colour }: { readonly word: string; readonly colour: Colour }) {
  return (
    <span className="flex items-center gap-1.5">
      <span
        aria-hidden="true"
        className="inline-block size-5 rounded-full border border-rule-strong"
        style={{ background: colour.css }}
      />
      {word}: {colour.word}
    </span>
  );
}
