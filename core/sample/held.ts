import { figureText, roundHalfEven, roundSignificant, signedText } from '../measurement';
import type { Measured, Verdict } from './decision';
import { decide, ofAccepted, ofClaim } from './decision';
import type { Requirement } from './sample';

/** What is said of a result by what it is held against. */
export interface Held {
  readonly text: string;
  /** Whether it is as it should be; null where nothing is decided. */
  readonly isGood: boolean | null;
}

const VERDICT_WORDS: Readonly<Record<Verdict, string>> = {
  pass: 'Passes',
  'conditional-pass': 'Passes conditionally',
  'conditional-fail': 'Fails conditionally',
  fail: 'Fails',
};

/** Holds a result against what was agreed before it was measured; null where nothing was. */
export function holdAgainst(requirement: Requirement, measured: Measured): Held | null {
  const percent = (value: number): string => `${figureText(roundHalfEven(value, 1))} %`;
  switch (requirement.kind) {
    case 'none':
      return null;
    case 'limits': {
      const { verdict, probability } = decide(measured, requirement);
      const chance = chanceText(probability);
      return verdict === null
        ? { text: `Probability of conformity ${chance}`, isGood: null }
        : {
            text: `${VERDICT_WORDS[verdict]}: probability of conformity ${chance}`,
            isGood: verdict === 'pass' || verdict === 'conditional-pass',
          };
    }
    case 'label-claim': {
      const { percent: found, expandedPercent, isWithin } = ofClaim(measured, requirement);
      const of = `${percent(found)} ± ${percent(expandedPercent)} of the claim`;
      return { text: within(of, isWithin), isGood: isWithin };
    }
    case 'accepted-value': {
      const { relativeErrorPercent, isWithin, en } = ofAccepted(measured, requirement);
      const number = en === null ? '' : `, normalized error ${figureText(roundSignificant(en, 2))}`;
      const error = `Relative error ${signedText(relativeErrorPercent, 2)} %${number}`;
      return { text: within(error, isWithin), isGood: isWithin };
    }
  }
}

/** A probability in whole per cent; nothing is quite sure. */
function chanceText(probability: number): string {
  const percent = Math.round(100 * probability);
  if (percent >= 100) return 'above 99 %';
  return percent <= 0 ? 'below 1 %' : `${String(percent)} %`;
}

function within(text: string, isWithin: boolean | null): string {
  if (isWithin === null) return text;
  return `${text}: ${isWithin ? 'within' : 'outside'} what is allowed`;
}
