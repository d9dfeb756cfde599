import { describeEndPoint } from '../../chemistry';
import type { Id } from '../../grammar';
import { CURVE_WAYS } from '../../wording';
import { curveEndOf } from '../figures';
import type { RunState } from '../run';
import { arrangementOf, describeInstruments } from '../setUp';
import type { Judgement } from './judge';
import { deviationsOf } from './resultChecks';

/** Who weighed and read, in the order of their first entry; whoever set the run up, while nobody has. */
export function analystsOf({ flasks, started }: RunState): readonly Id[] {
  const entries = flasks.flatMap(({ portion, initial, final, refills }) => [
    portion,
    initial,
    ...refills.flatMap(({ stop, restart }) => [stop, restart]),
    final,
  ]);
  const authors = entries.flatMap((entry) => (entry ? [entry.by] : []));
  return authors.length > 0 ? [...new Set(authors)] : [started.by];
}

/** In what ways a curve gave the end points that count, in all series of a run; null where one of them was seen. */
function curveWays(run: RunState, judgements: readonly Judgement[]) {
  const counting = judgements.flatMap(({ replicates }) =>
    replicates.filter(({ verdict }) => verdict === 'counts'),
  );
  const ways = counting.flatMap(({ flask }) => curveEndOf(run, flask)?.way ?? []);
  return ways.length === counting.length ? new Set(ways) : null;
}

/** What told the end points that count: the indicator, or an electrode. */
export function endPointText(run: RunState, judgements: readonly Judgement[]): string {
  const ways = curveWays(run, judgements);
  return ways
    ? `electrode, ${[...ways].map((way) => CURVE_WAYS[way]).join(' or ')}`
    : describeEndPoint(run.references.method, run.setUp.rules);
}

/** The indicator that told the end points that count; null where none did. */
export function indicatorIdOf(run: RunState, judgement: Judgement): string | null {
  return curveWays(run, [judgement]) ? null : run.references.method.indicatorId;
}

/** What whatever is issued says of how a run was worked. */
export function workOf(run: RunState) {
  const { setUp, references } = run;
  const { burette } = references;
  return {
    temperatureC: setUp.temperatureC,
    measuredWith: describeInstruments(arrangementOf(references)),
    burette: burette.calibration ? `${burette.name}, calibrated` : burette.name,
    analystIds: analystsOf(run),
    rules: setUp.rules,
    deviations: deviationsOf(run),
  };
}
