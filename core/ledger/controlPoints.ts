import { RESULT_UNITS } from '../chemistry';
import type { ControlPoint, ControlSaid, SampleState } from '../sample';
import { requestFor, standingOfControl } from '../sample';
import type { RunSummary } from './summary';

/**
 * The points of a control by one analysis, in the order of time: those taken over, and those of its runs, also of such as were
 * abandoned for them.
 */
export function controlPoints(
  { id, sample, takenOver }: SampleState,
  analysisId: string,
  runs: readonly RunSummary[],
): readonly ControlPoint[] {
  const unit = requestFor(sample, analysisId)?.unit;
  if (!unit) return [];
  const before = takenOver
    .filter((one) => one.analysisId === analysisId && one.unit === unit)
    .flatMap(({ points }) =>
      points.map(({ on, value }) => ({
        ...{ runId: null, at: String(on), value: Number(value), range: null, isSettled: true },
      })),
    );
  const { symbol } = RESULT_UNITS[unit].unit;
  const ofRuns = runs
    .filter((run) => run.analysisId === analysisId)
    .flatMap(({ id: runId, startedAt: at, status, samples }): readonly ControlPoint[] =>
      samples.flatMap(({ id: sampleId, content, unit: stated, range }) =>
        sampleId === id && content !== null && stated === symbol
          ? [{ runId, at, value: content, range, isSettled: status === 'reported' }]
          : [],
      ),
    );
  return [...before, ...ofRuns].toSorted((a, b) => (a.at < b.at ? -1 : 1));
}

/** How a control stands with its result in a run; nothing where it has none. */
export function controlSaid(
  state: SampleState,
  analysisId: string,
  runs: readonly RunSummary[],
  runId: string,
): readonly ControlSaid[] {
  const unit = requestFor(state.sample, analysisId)?.unit;
  const points = controlPoints(state, analysisId, runs);
  const at = points.findIndex((point) => point.runId === runId);
  const standing = standingOfControl(points.slice(0, at + 1));
  return unit && standing
    ? [{ code: state.sample.code, unit: RESULT_UNITS[unit].unit.symbol, standing }]
    : [];
}
