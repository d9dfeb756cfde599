import { shortNameOf } from '../../chemistry';
import { figureText, roundHalfEven, roundSignificant } from '../../measurement';
import type { Forecast } from '../figures';
import type { Flask, RunState } from '../run';
import { isBlank } from '../run';
import type { RunReferences } from '../setUp';
import { arrangementOf, isAnalysis, soughtOf } from '../setUp';
import type { SeriesPlan } from './plan';

/** Why so much goes into a flask, and why its titre is expected there: sentence by sentence. */
export function whyPortion(
  references: RunReferences,
  { portion, titreMl }: SeriesPlan,
): readonly string[] {
  const { portion: into, excess } = arrangementOf(references);
  const amount = `${figureText(roundSignificant(portion.suggested, 4))} ${into.unit}`;
  const titre = `${figureText(roundHalfEven(titreMl.suggested, 1))} mL`;
  return [
    into.fixedMl === null
      ? `A titre of ${titre} is a little under half of what the burette holds (${figureText(references.burette.capacityMl)} mL): two titrations come out of one filling, and readings still weigh little.`
      : `The portion is what the pipette holds: ${amount}.`,
    `By the balanced equation, with ${whatIsExpected(references)}, ${amount} takes ${titre}${excess ? ' after the excess has had its share' : ''}.`,
    ...(into.unit === 'g' && !isAnalysis(references)
      ? ['Molar mass and purity of the lot are in it.']
      : []),
  ];
}

/** What a plan goes by: the label of a bottle, or what somebody expects of a sample. */
function whatIsExpected(references: RunReferences): string {
  const { expected, as, believedWithin } = soughtOf(references);
  const figure = figureText(roundSignificant(expected, 4));
  if (!isAnalysis(references)) {
    return `${shortNameOf(references.bottle)} of ${figure} mol/L as its label has it`;
  }
  const within = `${figureText(String(100 * (believedWithin ?? 0)))} %`;
  return `a content of ${figure} ${as.unit.symbol} expected, within ${within}`;
}

/** Why the end point of a flask is expected where it is. */
export function whyExpected(
  run: RunState,
  flask: Flask,
  { titreMl, halfBandMl, basis, dropPercent }: Forecast,
): readonly string[] {
  const { dropMl } = run.references.burette;
  return [
    ...(isBlank(flask)
      ? ['A blank holds no standard: it takes little, but for what an excess takes.']
      : [
          `What went into this flask takes ${figureText(roundHalfEven(titreMl, 2))} mL, the blank included.`,
          BASES[basis](run),
        ]),
    `Within ± ${figureText(roundHalfEven(halfBandMl, 2))} mL, half a drop included.`,
    `One drop too many, ${figureText(dropMl)} mL, is worth ${figureText(roundHalfEven(dropPercent, 2))} % of ${isBlank(flask) ? 'the blank’s titre' : 'the molarity'}.`,
  ];
}

const BASES: Readonly<Record<Forecast['basis'], (run: RunState) => string>> = {
  nominal: ({ references, setUp }) =>
    isAnalysis(references)
      ? `No titration tells it yet: ${whatIsExpected(references)}.`
      : `No titration tells it yet: the molarity is the label’s, ${figureText(roundSignificant(soughtOf(references).expected, 4))} mol/L, believed within ${figureText(setUp.rules.nominalTolerancePercent)} %.`,
  rough: () =>
    'The molarity is what the rough titration gave; it may have gone over by a few drops.',
  replicates: () =>
    'The molarity is the mean of the titrations made so far; the band follows their scatter.',
};
