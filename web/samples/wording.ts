import { findAnalysis, statedAsOf } from '#core/chemistry';
import { figureText } from '#core/measurement';
import type { DecisionRule, Requirement, SampleRequest, SampleState } from '#core/sample';

/** How a result is held against a limit, for whoever agrees on it. */
export const RULES: Readonly<Record<DecisionRule, string>> = {
  none: 'no statement',
  simple: 'as it stands (shared risk)',
  'guarded-acceptance': 'passes only if it is inside by U',
  'guarded-rejection': 'fails only if it is outside by U',
  'four-way': 'pass, conditional pass, conditional fail, fail',
};

/** What an analysis is called. */
export function analysisName(analysisId: string): string {
  return findAnalysis(analysisId)?.name ?? analysisId;
}

/** As what and in which unit: `g/L as tartaric acid`. */
export function statedText({ analysisId, unit, as }: SampleRequest): string {
  const analysis = findAnalysis(analysisId);
  const stated = analysis && statedAsOf(analysis, as);
  return stated ? `${unit} as ${stated.name}` : unit;
}

/** What a result is held against, in a few words. */
export function requirementText(requirement: Requirement, unit: string): string {
  switch (requirement.kind) {
    case 'none':
      return 'nothing to hold it against';
    case 'limits':
      return `${limitsText(requirement)} ${unit}; ${RULES[requirement.rule]}`;
    case 'label-claim': {
      const { claim, window } = requirement;
      const allowed = window
        ? `, ${figureText(window.fromPercent)} to ${figureText(window.toPercent)} % of it`
        : '';
      return `claim ${figureText(claim)} ${unit}${allowed}`;
    }
    case 'accepted-value': {
      const { value, expandedUncertainty: u, withinPercent } = requirement;
      const within = withinPercent === null ? '' : `, within ${figureText(withinPercent)} %`;
      return `accepted ${figureText(value)}${u === null ? '' : ` ± ${figureText(u)}`} ${unit}${within}`;
    }
  }
}

function limitsText({ lower, upper }: Extract<Requirement, { kind: 'limits' }>): string {
  if (lower !== null && upper !== null) return `${figureText(lower)} to ${figureText(upper)}`;
  return lower === null ? `at most ${figureText(upper ?? '')}` : `at least ${figureText(lower)}`;
}

/** Where a sample stands, in a word. */
export function standingText({ disposed, sample }: SampleState, today: string): string {
  if (disposed) return 'disposed of';
  return sample.keepUntil !== null && sample.keepUntil < today ? 'to dispose of' : 'kept';
}
