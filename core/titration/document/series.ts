import { sectionOf, rowsOf } from '../../document';
import { paperUnitsOf } from '../../laboratory';
import { figureText, roundHalfEven } from '../../measurement';
import { outcomeText } from '../../wording';
import type { Judgement, Replicate } from '../judging';
import { outlierText, VERDICT_WORDS } from '../judging';
import type { Flask, RunState } from '../run';
import { portionText, stretchesOf } from '../run';

/** Molarities of single titrations have a place more than most results. */
const MOLARITY_DECIMALS = 5;

const mol = (value: number | null): string =>
  value === null ? '–' : figureText(roundHalfEven(value, MOLARITY_DECIMALS));

/** Every flask with what was put in and read, and what became of it. */
export function replicatesSection({ setUp: { rules } }: RunState, { replicates }: Judgement) {
  const { volume } = paperUnitsOf(rules);
  return sectionOf('Titrations', [
    {
      kind: 'table',
      heads: [
        'Flask',
        'Portion',
        `Readings / ${volume}`,
        `Titre / ${volume}`,
        'c / (mol/L)',
        'Verdict',
      ],
      rows: replicates
        .filter(({ verdict }) => verdict !== 'open')
        .map((one) => [
          String(one.flask.number),
          portionText(one.flask.portion.value, volume),
          readingsText(one.flask),
          one.titreMl === null ? '–' : figureText(one.titreMl),
          mol(one.molarity),
          verdictText(one),
        ]),
    },
  ]);
}

/** From and to, for every filling of the burette. */
function readingsText(flask: Flask): string {
  return stretchesOf(flask)
    .map(({ from, to }) => `${figureText(from.value)} to ${figureText(to.value)}`)
    .join('; ');
}

/** What became of a flask, and why. */
export function verdictText({ verdict, why }: Replicate): string {
  return [VERDICT_WORDS[verdict], ...(why ? [outcomeText(why)] : [])].join(': ');
}

/** The figures of the series, and how it stood the rule. */
export function statisticsSection({ setUp: { rules } }: RunState, judgement: Judgement) {
  const { accurate, averaged, isConcordant, limit, spread, outlier } = judgement;
  if (!accurate || !averaged) return null;
  const few = accurate.n < 2;
  const rsd = accurate.relativeSdPercent;
  return sectionOf('Statistics', [
    rowsOf([
      ['Averaged', `${String(averaged.n)} of ${String(accurate.n)} accurate titrations`],
      ['Mean', `${mol(averaged.mean)} mol/L`],
      [
        'Standard deviation s',
        !few &&
          `${figureText(roundHalfEven(accurate.sampleSd ?? 0, 6))} mol/L (n − 1), of all accurate ones`,
      ],
      [
        'Relative standard deviation',
        rsd !== null &&
          `${figureText(roundHalfEven(rsd, 3))} %, of all ${String(accurate.n)} accurate ones`,
      ],
      [
        'Rule',
        rules.testedBy === 'concordance' &&
          `${String(rules.agreeAtLeast)} within ${figureText(limit)}: ${isConcordant ? 'met' : 'not met'}${spread.averaged === null ? '' : `, spread ${figureText(spread.averaged)}`}`,
      ],
      ['Outlier test', outlier && outlierText(outlier)],
    ]),
  ]);
}
