import type { DecimalText } from '../../measurement';
import type { Judgement, Result } from '../judging';
import { judgeRun } from '../judging';
import type { RunState } from '../run';

/** What a series would come to without one of its titrations. */
export interface LeftOut {
  readonly flask: number;
  readonly value: DecimalText;
  readonly uncertainty: DecimalText;
  readonly movedPercent: number;
  /** How far the value would move, in parts of the present U; with its sign. */
  readonly movedByU: number;
  /** Of the titrations that would be left; null for one. */
  readonly relativeSdPercent: number | null;
}

/** The effect of leaving out each of the titrations that count, to be known before one is. */
export function leavingOut(
  run: RunState,
  judgement: Judgement,
  result: Result,
): readonly LeftOut[] {
  return judgement.replicates.flatMap(
    ({ flask }) => withoutFlask(run, judgement, result, flask.number) ?? [],
  );
}

/** The effect of leaving out one titration; null for one that does not count, or when nothing would be left. */
export function withoutFlask(
  run: RunState,
  { replicates }: Judgement,
  { evaluation }: Result,
  number: number,
): LeftOut | null {
  const one = replicates.find(({ flask }) => flask.number === number);
  if (one?.verdict !== 'counts') return null;
  const { result, accurate } = judgeRun(without(run, number));
  if (!result) return null;
  const moved = result.evaluation.value - evaluation.value;
  return {
    flask: number,
    value: result.rounded.value,
    uncertainty: result.rounded.uncertainty,
    movedPercent: (100 * moved) / evaluation.value,
    movedByU: moved / evaluation.expandedUncertainty,
    relativeSdPercent: accurate?.relativeSdPercent ?? null,
  };
}

/** The run as if a flask had never been titrated: what it took from the burette stays. */
function without(run: RunState, number: number): RunState {
  return {
    ...run,
    flasks: run.flasks.map((flask) =>
      flask.number === number
        ? { ...flask, voided: { ...run.started, reason: 'to see what it changes' } }
        : flask,
    ),
  };
}
