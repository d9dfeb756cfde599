import type { Id } from '../../grammar';
import { budgetByEffect, decimalText, roundHalfEven } from '../../measurement';
import type { Provenance } from '../../record';
import { planRun } from '../guidance';
import { judgeRun } from '../judging';
import type { Entry, Flask, Portion, Reading, RunState } from '../run';
import type { RunReferences, RunSetUp } from '../setUp';
import { arrangementOf } from '../setUp';

/** What a series would come to if all of it went as planned. */
interface AsPlanned {
  /** In the unit of what is sought. */
  readonly value: number;
  readonly expandedUncertainty: number;
  /** The effects that make most of it, with their shares, 0 to 1. */
  readonly effects: readonly { readonly effect: string; readonly share: number }[];
}

/** Effects that together make so much of the variance are named. */
const NAMED_SHARE = 0.8;

/**
 * What U a series will have, before anything is weighed: the planned portions with the titres that are expected of them, judged as if
 * they had been titrated. Null where the plan does not fit into the burette.
 *
 * @param references of a standardization, or of one sample
 */
export function asPlanned(setUp: RunSetUp, references: RunReferences): AsPlanned | null {
  const { rules } = setUp;
  const plan = planRun(references, rules);
  const titre = plan.titreMl.suggested;
  if (titre <= 0 || titre > Number(references.burette.capacityMl)) return null;
  const portion = portionOf(references, plan.portion.suggested);
  const flasks = Array.from({ length: rules.agreeAtLeast }, (_, i) =>
    titrated(i + 1, portion, roundHalfEven(titre, 2)),
  );
  const { result } = judgeRun(plannedRun(setUp, references, flasks));
  if (!result) return null;
  const { value, expandedUncertainty, budget } = result.evaluation;
  return { value, expandedUncertainty, effects: mostOf(budgetByEffect(budget)) };
}

/** The first of the effects, largest first, that make up most of the variance. */
function mostOf(effects: ReturnType<typeof budgetByEffect>): AsPlanned['effects'] {
  let sum = 0;
  const end = effects.findIndex(({ share }) => (sum += share) >= NAMED_SHARE);
  return effects.slice(0, end + 1).map(({ effect, share }) => ({ effect, share }));
}

const NOBODY: Provenance = { factId: 'planned' as Id, by: '' as Id, at: '' };

function portionOf(references: RunReferences, amount: number): Portion {
  return arrangementOf(references).portion.unit === 'g'
    ? { kind: 'mass', weighing: { mode: 'tared', massG: roundHalfEven(amount, 4) } }
    : { kind: 'volume', volumeMl: roundHalfEven(amount, 2) };
}

function entry<T>(place: string, value: T): Entry<T> {
  return { ...NOBODY, factId: `planned/${place}` as Id, value, reason: null, superseded: [] };
}

function titrated(number: number, portion: Portion, titreMl: string): Flask {
  const reading = (moment: string, value: string): Reading => ({
    ...entry(`${String(number)}/${moment}`, decimalText(value)),
    ...{ carriedFromFlask: null, confirmed: [] },
  });
  return {
    ...{
      number,
      isRough: false,
      refills: [],
      firstEnd: null,
      provisional: [],
      electrode: [],
      photographs: [],
    },
    ...{ temperatures: [], grade: null, incidents: [], voided: null },
    portion: entry(`${String(number)}/portion`, portion),
    initial: reading('initial', '0'),
    final: reading('final', titreMl),
    rivals: { portion: [], readings: [] },
  };
}

function plannedRun(
  setUp: RunSetUp,
  references: RunReferences,
  flasks: readonly Flask[],
): RunState {
  return {
    ...{ id: 'planned' as Id, version: 0, storedVersion: 0, status: 'open', started: NOBODY },
    ...{ setUp, references, flasks, lastFlask: flasks.length, level: null, fillings: [] },
    ...{ buretteChecked: [], pauses: [], entries: 0, signatures: [], returns: [] },
    ...{ certificates: [], certificate: null, reports: [], report: null },
    ...{ closed: null, late: [], doubtfulTimes: [] },
  };
}
