import { figureText, roundHalfEven, roundSignificant } from '../measurement';
import type { PlaceKind } from './places';
import { PLACE_NAMES } from './places';

interface OfFlask {
  readonly flask: number;
}

/** What goes into every flask of a back-titration before the rest. */
interface Excess {
  readonly volumeMl: number;
  readonly bottleCode: string;
}

/** Why the planned flasks were not enough; null while they are being filled. */
export type WhyAnother =
  | { readonly because: 'spread'; readonly spread: string; readonly limit: string }
  | { readonly because: 'too-few'; readonly missing: number }
  | null;

/** How a hot titration is heated before its first reading; null for one that is not. */
export type Heating = {
  readonly how: 'to-the-top' | 'until-steaming' | 'towards-the-end';
  readonly leastC: number;
  readonly mostC: number;
} | null;

/** Why a series does not come to agreement, with its evidence. */
export type SeriesFault =
  | {
      readonly kind: 'outlier';
      readonly flask: number;
      readonly test: 'grubbs' | 'dixon';
      readonly statistic: number;
      readonly critical: number;
    }
  | { readonly kind: 'drift' | 'scatter'; readonly percent: number };

/** What keeps a series apart, as a sentence. */
export function faultText(fault: SeriesFault): string {
  switch (fault.kind) {
    case 'outlier': {
      const name = fault.test === 'grubbs' ? 'G' : 'Q';
      return `Flask ${String(fault.flask)} stands out (${name} = ${figureText(roundHalfEven(fault.statistic, 2))}, more than ${figureText(roundHalfEven(fault.critical, 2))}): look for what was different there, such as a bubble, a drop lost or a misread figure.`;
    }
    case 'drift':
      return `They ${fault.percent > 0 ? 'rise' : 'fall'} by ${figureText(roundSignificant(Math.abs(fault.percent), 2))} % from one to the next: a solution that changes as it stands, a burette that leaks or is not rinsed, or a temperature that moves.`;
    case 'scatter':
      return `They scatter by ${figureText(roundSignificant(fault.percent, 2))} % with no order in it: the end point, the readings or the filling of the flasks.`;
  }
}

function whyText(why: WhyAnother): string {
  switch (why?.because) {
    case undefined:
      return '';
    case 'spread':
      return `The titrations spread over ${figureText(why.spread)}, the rule allows ${figureText(why.limit)}. `;
    case 'too-few':
      return `${String(why.missing)} more ${why.missing === 1 ? 'titration is' : 'titrations are'} needed. `;
  }
}

function heatText(heating: Heating, flask: number): string {
  const number = String(flask);
  switch (heating?.how) {
    case undefined:
      return '';
    case 'to-the-top':
      return `Heat flask ${number} to ${String(heating.mostC)} °C, never below ${String(heating.leastC)}. `;
    case 'until-steaming':
      return `Heat flask ${number} until it steams, never below ${String(heating.leastC)} °C. `;
    case 'towards-the-end':
      return `Titrate flask ${number} cold for most of the way, then heat it to ${String(heating.leastC)} °C. `;
  }
}

function excessText({ volumeMl, bottleCode }: Excess): string {
  return `${figureText(volumeMl)} mL of bottle ${bottleCode}, the excess`;
}

/** A flask that is titrated next, within a sentence. */
interface Titrated extends OfFlask {
  readonly isBlank: boolean;
  readonly heating: Heating;
}

function titratedText({ flask, isBlank }: Titrated): string {
  return `flask ${String(flask)}${isBlank ? ', the blank' : ''}`;
}

/** What comes next at the bench, by its code, and the sentence that its values make. */
const STEPS = {
  closed: ({ status }: { status: string }) => `This run is ${status}. Its figures are frozen.`,
  paused: ({ isFlaskUnderBurette }: { isFlaskUnderBurette: boolean }) =>
    `This run is paused. Whoever goes on resumes it.${isFlaskUnderBurette ? '' : ' The burette is then filled and read again.'}`,
  settle: ({ flask, place }: OfFlask & { place: PlaceKind }) =>
    `Two different entries for the ${PLACE_NAMES[place]} of flask ${String(flask)}: settle which one stands.`,
  'may-stop': ({
    count,
    spread,
    isWhole = false,
  }: {
    count: number;
    spread: string;
    /** Whether each flask held a whole unit. */
    isWhole?: boolean;
  }) =>
    isWhole
      ? `You may stop: ${String(count)} whole units are titrated; they spread over ${figureText(spread)}. More of them tell that better.`
      : `You may stop: ${String(count)} titrations agree within ${figureText(spread)}.`,
  stop: ({
    made,
    atLeast,
    limit,
    fault,
  }: {
    made: number;
    atLeast: number;
    limit: string;
    fault: SeriesFault | null;
  }) =>
    `Stop: ${String(made)} titrations and no ${String(atLeast)} of them agree within ${figureText(limit)}. ${fault ? faultText(fault) : 'Look for the cause before more.'}`,
  'fill-again': ({ flask }: OfFlask) =>
    `Flask ${String(flask)}: fill the burette again, then read the level that it goes on from.`,
  'stop-before-last-mark': ({
    flask,
    capacityMl,
    expectedMl,
  }: OfFlask & { capacityMl: number; expectedMl: number }) =>
    `Flask ${String(flask)}: stop before the last mark at ${figureText(capacityMl)}, read, and refill. About ${figureText(roundHalfEven(expectedMl - capacityMl, 1))} mL will still be needed.`,
  'watch-last-mark': ({ flask, expectedMl }: OfFlask & { expectedMl: number }) =>
    `Flask ${String(flask)}: watch the last mark. The end is expected at ${figureText(roundHalfEven(expectedMl, 1))} and the burette may not hold it.`,
  'blank-drop-by-drop': ({ flask }: OfFlask) =>
    `Flask ${String(flask)}, the blank: drop by drop from the start, to the same colour. A few tenths of a millilitre at most.`,
  'run-freely': ({
    runFreelyToMl,
    expectedMl,
    add = null,
  }: {
    runFreelyToMl: number;
    expectedMl: number;
    /** What goes in after the first of two ends. */
    add?: string | null;
  }) =>
    `${add === null ? '' : `Now ${add}. `}Run freely to ${figureText(roundHalfEven(runFreelyToMl, 1))}, then drop by drop. The end point is expected at ${figureText(roundHalfEven(expectedMl, 2))}.`,
  'to-first-end': ({
    flask,
    until,
    expectedMl,
  }: OfFlask & { until: string; expectedMl: number | null }) =>
    `Flask ${String(flask)}: slowly, until ${until}; read there.${expectedMl === null ? '' : ` It is expected at ${figureText(roundHalfEven(expectedMl, 2))}.`}`,
  'stop-to-refill': ({ flask }: OfFlask) =>
    `Flask ${String(flask)}: read the level at which you stop, before you refill.`,
  'fill-burette': (titrated: Titrated) =>
    `${heatText(titrated.heating, titrated.flask)}Rinse and fill the burette, bring it to or below zero, then read it for ${titratedText(titrated)}.`,
  'refill-for': (titrated: Titrated & { titreMl: number }) => {
    const heat = heatText(titrated.heating, titrated.flask);
    const about = `about ${figureText(roundHalfEven(titrated.titreMl, 1))} mL`;
    const comma = titrated.isBlank ? ',' : '';
    return heat === ''
      ? `Refill: ${titratedText(titrated)}${comma} needs ${about}, more than is left. Then read the level.`
      : `${heat}Refill, and read: it needs ${about}.`;
  },
  'titrate-next': (titrated: Titrated & { levelMl: number; goOn: 'carry-on' | 'refill' }) => {
    const name = titratedText(titrated);
    const goOn =
      titrated.goOn === 'carry-on'
        ? `Carry on from ${figureText(roundHalfEven(titrated.levelMl, 2))}, or refill and read.`
        : 'Refill to near zero and read.';
    const comma = titrated.isBlank ? ',' : '';
    return `${heatText(titrated.heating, titrated.flask)}${name.charAt(0).toUpperCase()}${name.slice(1)}${comma} is next. ${goOn}`;
  },
  weigh: ({
    flask,
    why,
    massG,
    substance,
    isWhole = false,
  }: OfFlask & {
    why: WhyAnother;
    massG: number;
    substance: string;
    /** Whether that is one whole unit of it. */
    isWhole?: boolean;
  }) =>
    isWhole
      ? `${whyText(why)}Weigh one whole unit of ${substance} into flask ${String(flask)}.`
      : `${whyText(why)}Weigh about ${figureText(roundHalfEven(massG, 2))} g of ${substance} into flask ${String(flask)}.`,
  pipette: ({
    flask,
    why,
    volumeMl,
    isFixed,
    bottleCode,
    from = 'bottle',
    excess,
  }: OfFlask & {
    why: WhyAnother;
    volumeMl: number;
    isFixed: boolean;
    bottleCode: string;
    /** What has that code; a bottle where nothing is said. */
    from?: 'bottle' | 'sample' | 'the diluted sample';
    excess: Excess | null;
  }) => {
    const volume = isFixed
      ? figureText(volumeMl)
      : `about ${figureText(roundHalfEven(volumeMl, 0))}`;
    const what = `${volume} mL of ${from} ${bottleCode}`;
    const into = `into flask ${String(flask)}`;
    // The excess goes in before what it is to take up, so that nothing of that escapes.
    return excess
      ? `${whyText(why)}Pipette ${excessText(excess)}, ${into}, then ${what}.`
      : `${whyText(why)}${isFixed ? 'Pipette' : 'Let'} ${what} ${into}.`;
  },
  blank: ({ flask, excess }: OfFlask & { excess: Excess | null }) =>
    `Make a blank as flask ${String(flask)}: ${excess ? `${excessText(excess)}, and nothing that takes it up` : 'the same medium and indicator, and nothing to titrate'}.`,
};

export type StepCode = keyof typeof STEPS;

/** Every code of a step. */
// The keys of the table, which has no others.
export const STEP_CODES = Object.keys(STEPS) as [StepCode, ...StepCode[]];

/** What a step says beside its code. */
export type StepValues<Code extends StepCode> = Parameters<(typeof STEPS)[Code]>[0];

/** What comes next, by its code and values. */
export interface StepSaid {
  readonly code: StepCode;
  readonly values: Readonly<Record<string, unknown>>;
}

/** What comes next, as a sentence; none where a newer server says what this program does not know. */
export function stepText({ code, values }: StepSaid): string {
  // A step is made with the values of its code, and only so.
  const sentence = STEPS[code] as ((values: object) => string) | undefined;
  return sentence?.(values) ?? '';
}
