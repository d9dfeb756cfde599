import type { HouseRules } from '../../laboratory';
import { HOUSE_RULES } from '../../laboratory';
import type { DecimalText } from '../../measurement';
import type { Result } from '../judging';
import { judgeRun } from '../judging';
import type { RunState } from '../run';
import { isBlank } from '../run';
import { inTitrationOrder } from './titrationOrder';

/** Rules on which schools differ, and by which the same entries may come to something else. */
const DECIDING: ReadonlySet<keyof HouseRules> = new Set<keyof HouseRules>([
  'firstIsRough',
  'overshotCounts',
  'weighedConcordance',
  'endPointOfCurve',
  'volumeCorrection',
  'buoyancyCorrection',
  'referenceTemperatureC',
  'pooling',
  'toleranceAs',
  'coverage',
]);

/** What a series would come to if one rule had another answer. */
export interface OtherAnswer {
  /** The rule as a sentence with that answer: `The first titration counts if it agrees`. */
  readonly says: string;
  readonly value: DecimalText;
  readonly uncertainty: DecimalText;
  readonly averaged: number;
  /** How far the value would move, in parts of the present U; with its sign. */
  readonly movedByU: number;
}

/** What other schools would say of a series, a rule at a time, as far as they would say something else. Nothing is switched by asking. */
export function otherSchools(run: RunState, result: Result): readonly OtherAnswer[] {
  const { rules } = run.setUp;
  const { evaluation, rounded } = result;
  return HOUSE_RULES.filter(({ key }) => DECIDING.has(key)).flatMap(
    ({ key, question, answer }): readonly OtherAnswer[] => {
      if (answer.kind !== 'choice') return [];
      return answer.choices
        .filter(([value]) => value !== rules[key])
        .flatMap(([value, words]) => {
          const other = judgeRun(under(run, { ...rules, [key]: value }));
          const { result: would, averaged } = other;
          if (!would) return [];
          const isSame =
            would.rounded.value === rounded.value &&
            would.rounded.uncertainty === rounded.uncertainty;
          const moved = would.evaluation.value - evaluation.value;
          return isSame
            ? []
            : [
                {
                  says: `${question} ${words}`,
                  value: would.rounded.value,
                  uncertainty: would.rounded.uncertainty,
                  averaged: averaged?.n ?? 0,
                  movedByU: moved / evaluation.expandedUncertainty,
                },
              ];
        });
    },
  );
}

/** The run under other rules. */
function under(run: RunState, rules: HouseRules): RunState {
  const rough = rules.firstIsRough ? firstTitrated(run) : null;
  return {
    ...run,
    setUp: { ...run.setUp, rules },
    flasks: run.flasks.map((flask) => ({ ...flask, isRough: flask.number === rough })),
  };
}

/** The flask that was titrated first; a blank is never the rough one. */
function firstTitrated({ flasks }: RunState): number | null {
  const begun = flasks.filter((flask) => flask.initial !== null && !isBlank(flask));
  const [first] = inTitrationOrder(begun, (flask) => flask);
  return first?.number ?? null;
}
