import { isAutocatalytic } from '#core/chemistry';
import { figureText, roundHalfEven } from '#core/measurement';
import type { Flask, RunState } from '#core/titration/run';
import { cooledToC, lossPerMinute, minutesUntil } from '#core/titration/guidance';
import { useNow } from '../app/useNow';

const MINUTE_MS = 60_000;

/** How warm a flask of a hot titration is by now, by estimate, and when it has to be heated again. */
export function HotFlask({ run, flask }: { readonly run: RunState; readonly flask: Flask }) {
  const now = useNow(5_000);
  const { method } = run.references;
  const window = method.flaskTemperatureC;
  const last = flask.temperatures.at(-1);
  if (!window) return null;
  const [least, most] = window;
  if (!last) {
    return (
      <p className="mt-1 text-[15px] text-ink-soft">
        {least} to {most} °C: measure it once, and its cooling is followed.
      </p>
    );
  }
  const cooling = {
    measuredC: Number(last.temperatureC),
    roomC: Number(run.setUp.temperatureC),
    lossPerMinute: lossPerMinute(run),
  };
  const minutes = Math.max(0, (Date.parse(now) - Date.parse(last.at)) / MINUTE_MS);
  const nowC = cooledToC(cooling, minutes);
  const left = minutesUntil(least, { ...cooling, measuredC: nowC });
  return left <= 0 ? (
    <p role="alert" className="mt-1 text-lg font-bold text-blush">
      About {figureText(roundHalfEven(nowC, 0))} °C by now: below {least}. Heat it again before the
      next drop, and measure.
    </p>
  ) : (
    <p
      className={`mt-1 text-lg leading-snug xl:text-[15px] ${left < 2 ? 'font-bold text-straw' : ''}`}
    >
      About <span className="font-mono font-bold">{figureText(roundHalfEven(nowC, 0))} °C</span> by
      now ({figureText(last.temperatureC)} measured);{' '}
      {left < 1 ? 'less than a minute' : `about ${figureText(roundHalfEven(left, 0))} min`} until{' '}
      {least} °C.
      {isAutocatalytic(method) && ' The first drops stay coloured for long: not the end.'}
    </p>
  );
}
