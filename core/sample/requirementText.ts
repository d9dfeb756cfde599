import { figureText } from '../measurement';
import type { DecisionRule, Requirement } from './sample';

/** How a result is held against a limit, for whoever agrees on it. */
export const RULE_WORDS: Readonly<Record<DecisionRule, string>> = {
  none: 'no statement',
  simple: 'as it stands (shared risk)',
  'guarded-acceptance': 'passes only if it is inside by U',
  'guarded-rejection': 'fails only if it is outside by U',
  'four-way': 'pass, conditional pass, conditional fail, fail',
};

/** What a result is held against, in a few words. */
export function requirementText(requirement: Requirement, unit: string): string {
  switch (requirement.kind) {
    case 'none':
      return 'nothing to hold it against';
    case 'limits':
      return `${limitsText(requirement)} ${unit}; ${RULE_WORDS[requirement.rule]}`;
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
