import { figureText, roundHalfEven } from '../measurement';
import { whyNot } from '../rights';
import type { PlaceKind } from './places';
import { PLACE_NAMES } from './places';
import { endOfSentence } from './reason';
import type { SlipSaid } from './slips';
import { slipQuestion } from './slips';

/** What a signature says; a run takes one of each. */
type SignatureSaid = 'performed' | 'checked' | 'authorized';

/** A titre as a plan has it: a whole number of millilitres where it is absurd. */
function titreText(titreMl: number): string {
  return figureText(roundHalfEven(titreMl, titreMl >= 100 ? 0 : 1));
}

/** What an incident asks for, where nobody did it. */
const NOT_FOLLOWED = {
  void: 'The flask counts all the same: void it, or say why it counts.',
  correct: 'The titre is not corrected by its size: void the flask, or say why it counts.',
  'act-now': 'Say what was done about it, or void the flask.',
  'discard-solution': 'The solution should be discarded: say why it is certified.',
} as const;

/** What speaks against entries of a run, and against its certificate. */
export const TITRATION_FINDINGS = {
  'no-result': () => 'No titration counts yet, so there is nothing to sign for.',
  'conflict-open': () =>
    'Two entries for one place contradict each other. Settle which one stands first.',
  'rules-deviate': () =>
    'This run follows other rules than the house rules in force when it began. Say why that is right.',
  'set-aside-without-fault': () =>
    'A titration is left out by concordance alone, without a recorded fault. Say why that is right.',
  'far-from-nominal': ({ percent }: { percent: number }) =>
    `The molarity is ${figureText(roundHalfEven(percent, 1))} % from the label. That is more likely a slip than a discovery; say what was checked.`,
  'no-date': () => 'Give the last day on which the certificate is valid.',
  'valid-before-certified': () =>
    'The certificate cannot expire before the day on which it is issued.',
  'valid-too-long': ({ until }: { until: string }) =>
    `This titrant keeps until ${until}. To certify it for longer, give a reason.`,
  'too-old': ({ lastDay }: { lastDay: string }) =>
    `This solution was to be discarded after ${lastDay}: it decomposes, and standardizing does not renew it. To certify it all the same, give a reason.`,
  'not-signed': ({ means }: { means: SignatureSaid }) =>
    `It has still to be signed as ${means}, as it stands now.`,
  'signed-already': ({ means }: { means: SignatureSaid }) => `It is signed as ${means} already.`,
  'not-performer': () =>
    'Only somebody who weighed or read in this run can sign for having done it.',
  'own-work': ({ means }: { means: SignatureSaid }) =>
    `You had a part in this run, so somebody else has it ${means}.`,
  'too-few-to-authorize': ({ atLeast }: { atLeast: number }) =>
    `The house rule asks for ${String(atLeast)} titrations that agree. With fewer, a technical manager authorizes it and says why.`,
  'return-open': () => 'It was given back: the remarks have to be answered first.',
  'nothing-to-return': () => 'Nobody has signed for it yet, so there is nothing to give back.',
  'own-remarks': () => 'You remarked it: somebody who did the work answers.',
  'not-in-force': ({ number }: { number: string }) => `Certificate ${number} is not in force.`,
  'report-not-in-force': ({ number }: { number: string }) => `Report ${number} is not in force.`,
  'titrant-certificate-withdrawn': ({ number }: { number: string }) =>
    `Certificate ${number} of the titrant was withdrawn: go on with the one that replaces it.`,
  'sample-not-found': ({ code }: { code: string }) =>
    `Sample ${code} has no result: titrate it, or say why it is left out.`,
  'control-out': ({ said }: { said: string }) =>
    `${said}. Decide what becomes of the batch; to report it, say why that is right.`,
  'request-changed': ({ code }: { code: string }) =>
    `What is asked of sample ${code} was changed after the run had begun: the result is held against what was agreed before. Say so.`,
  'sample-not-concordant': ({
    code,
    atLeast,
    limit,
  }: {
    code: string;
    atLeast: number;
    limit: string;
  }) =>
    `Sample ${code}: the house rule asks for ${String(atLeast)} titrations within ${figureText(limit)}. To report it without them, give a reason.`,
  'nothing-to-answer': () => 'Nobody has given it back.',
  'not-concordant': ({ atLeast, limit }: { atLeast: number; limit: string }) =>
    `The house rule asks for ${String(atLeast)} titrations within ${figureText(limit)}. To certify without them, give a reason.`,
  'no-accepted-value': () =>
    'The house rule tests a result by the value accepted before, and this bottle has none. Say what it was compared with.',
  'not-solid': ({ lotNumber }: { lotNumber: string }) => `Lot ${lotNumber} is a solution.`,
  'other-solvent-not-measured': ({
    solvent,
    percentPerK,
  }: {
    solvent: string;
    percentPerK: number;
  }) =>
    `A solution in ${solvent} gains ${figureText(roundHalfEven(percentPerK, 2))} % of its volume with each kelvin: name the thermometer that reads it, here and where it is used.`,
  'calibration-overdue': ({ name, due }: { name: string; due: string }) =>
    `The calibration of ${name} was due on ${due}.`,
  'no-volume': () => 'The volume must be more than 0 mL.',
  'already-started': () => 'This run has been started already.',
  'paused-already': () => 'This run is paused already.',
  'not-paused': () => 'This run is not paused.',
  'already-void': ({ flask }: { flask: number }) => `Flask ${String(flask)} is void already.`,
  'not-rested-on': () => 'This run does not use that record.',
  'no-newer': () => 'The run already uses this version, or a newer one.',
  'no-end-point': () => 'Enter the final reading first, then grade the end point.',
  'titrated-since': () =>
    'The next titration has already begun. Void this flask, or correct its reading.',
  'run-closed': ({ status }: { status: string }) =>
    `This run is ${status}; its figures are frozen and nothing can be added.`,
  'unknown-check': () => 'There is no such check of the burette.',
  'unknown-incident': () => 'This incident cannot happen in a run of this kind.',
  'no-such-temperature': () => 'The temperature of a flask lies between 0 and 120 °C.',
  'too-hot': ({ mostC }: { mostC: number }) =>
    `The method keeps the flask below ${String(mostC)} °C: what boils or nearly boils loses standard. Void the flask, or say why it counts.`,
  'too-cold': ({ leastC }: { leastC: number }) =>
    `Below ${String(leastC)} °C the reaction is slow and the colour can persist before the end point. Heat the flask again. To titrate it as it is, give a reason.`,
  'not-weighed': () => 'This run uses aliquots; nothing is weighed.',
  'not-pipetted': () => 'This run weighs its standard.',
  'over-capacity': ({ vessel, capacityMl }: { vessel: string; capacityMl: string }) =>
    `${vessel} holds ${figureText(capacityMl)} mL.`,
  'other-volume': ({ vessel, volumeMl }: { vessel: string; volumeMl: string }) =>
    `${vessel} delivers ${figureText(volumeMl)} mL. Was it another pipette?`,
  'already-filled': ({ flask }: { flask: number }) =>
    `Flask ${String(flask)} has already been filled. Correct its entry, or use the next flask.`,
  'no-initial-reading': () =>
    'Take the initial reading before you titrate; without it the titration is lost.',
  'one-end-only': ({ flask }: { flask: number }) =>
    `Flask ${String(flask)} is read at one end only.`,
  'refill-open': () => 'The burette was refilled. Read the new level first.',
  'no-stop': () => 'First enter the reading before the refill.',
  'burette-busy': ({ flask }: { flask: number }) =>
    `Flask ${String(flask)} is still under the burette. Read its end point first, or void the flask.`,
  'not-the-last-reading': () =>
    'Only the last final reading can be carried over, and only as it stands.',
  'will-not-hold': ({ endMl, capacityMl }: { endMl: number; capacityMl: string }) =>
    `From here the end point is expected at ${figureText(roundHalfEven(endMl, 1))}, beyond the last mark at ${figureText(capacityMl)} mL. Refill first, or in the middle: that costs two more readings.`,
  'no-such-value': ({ quantity, least, most }: { quantity: string; least: number; most: number }) =>
    `A ${quantity} lies between ${figureText(least)} and ${figureText(most)}.`,
  'point-already-read': ({ readingMl }: { readingMl: string }) =>
    `There is a point at ${figureText(readingMl)} mL already: strike that one out first.`,
  'off-scale': ({ capacityMl }: { capacityMl: string }) =>
    `The burette reads from 0 to ${figureText(capacityMl)} mL; below its last mark the volume is unknown.`,
  'reads-upwards': ({ fromMl }: { fromMl: string }) =>
    `A burette reads downwards, so this reading must lie beyond the one before it, ${figureText(fromMl)} mL. If the burette was refilled, enter both levels.`,
  'off-resolution': ({ readingResolutionMl }: { readingResolutionMl: string }) =>
    `By the house rule the burette is read in steps of ${figureText(readingResolutionMl)} mL.`,
  'same-person': () => 'A reading is confirmed by a second person, not by its author.',
  'unknown-entry': () => 'There is no such entry in this run to correct.',
  'unknown-flask': ({ flask }: { flask: number }) =>
    `Flask ${String(flask)} is empty. Fill it first.`,
  'not-titrating': ({ flask }: { flask: number }) =>
    `Flask ${String(flask)} is not being titrated at this moment.`,
  superseded: ({ field }: { field: string }) =>
    `This ${field} has been changed since: choose it again.`,
  'wrong-titrant': () => 'This method does not standardize the solution in that bottle.',
  'wrong-standard': () => 'This is not the standard that the method asks for.',
  'same-bottle': () => 'A bottle cannot be its own standard.',
  'not-standardized': ({ code }: { code: string }) =>
    `The molarity of bottle ${code} is only nominal: standardize it first.`,
  'standard-overdue': ({ code, until }: { code: string; until: string }) =>
    `Bottle ${code} is past its last day, ${until}.`,
  'no-excess-wanted': () => 'This method adds no reagent in excess.',
  'wrong-excess': ({ name }: { name: string }) =>
    `This method needs a solution of ${name} in excess.`,
  'no-excess': ({
    vessel,
    excessCode,
    aliquotMl,
    code,
  }: {
    vessel: string;
    excessCode: string;
    aliquotMl: number;
    code: string;
  }) =>
    `${figureText(aliquotMl)} mL of bottle ${code} use up all that ${vessel} delivers of bottle ${excessCode}, so nothing is in excess. Take a smaller aliquot, or more of bottle ${excessCode}.`,
  'flask-void': ({ flask }: { flask: number }) => `Flask ${String(flask)} is void.`,
  'already-read': ({
    flask,
    place,
    readingMl,
  }: {
    flask: number;
    place: PlaceKind;
    readingMl: string;
  }) =>
    `Flask ${String(flask)} has its ${PLACE_NAMES[place]} already, ${figureText(readingMl)} mL. Correct that one instead.`,
  'blank-too-large': () =>
    'A blank takes a few tenths of a millilitre at most. Read again; if it stands, say why.',
  'titre-off-forecast': ({
    expectedMl,
    slip,
  }: {
    expectedMl: number;
    slip: (SlipSaid & { readonly meant: string }) | null;
  }) =>
    `The end point was expected near ${figureText(roundHalfEven(expectedMl, 2))}. ${slip ? `${slipQuestion(slip)} Then ${figureText(slip.meant)} was meant.` : 'Read again; if it stands, say why.'}`,
  'other-quantity': ({ quantity }: { quantity: string }) =>
    `The electrode of this titration shows ${quantity}.`,
  'no-end-to-take-back': ({ flask }: { flask: number }) =>
    `Flask ${String(flask)} has no end point to take back.`,
  'portion-too-large': ({
    what,
    titreMl,
    capacityMl,
    isTenfold,
  }: {
    what: 'mass' | 'aliquot';
    titreMl: number;
    capacityMl: number;
    isTenfold: boolean;
  }) =>
    `This ${what} would take ${titreText(titreMl)} mL, more than the burette's ${figureText(capacityMl)} mL.${isTenfold ? ' Is the decimal point in its place?' : ''}`,
  'portion-too-small': ({ what, titreMl }: { what: 'mass' | 'aliquot'; titreMl: number }) =>
    `This ${what} would take only ${titreText(titreMl)} mL; reading errors would dominate. Is the decimal point in its place?`,
  'excess-used-up': ({ what, titreMl }: { what: 'mass' | 'aliquot'; titreMl: number }) =>
    `This ${what} uses up the excess: ${titreMl > 0 ? `only ${titreText(titreMl)} mL would be left` : 'nothing would be left'} to titrate. Take less of it, or more of the reagent.`,
  'wrong-portion': ({ takes }: { takes: 'weighed' | 'aliquot' }) =>
    `This method takes no ${takes === 'weighed' ? 'weighed standard' : 'aliquots'}.`,
  'aliquot-not-measured': () => 'An aliquot is measured with a pipette or a burette.',
  'excess-not-measured': () => 'An excess is measured with a pipette.',
  'part-out-of-use': ({ field, reason }: { field: string; reason: string }) =>
    `This ${field} is out of use: ${endOfSentence(reason)}`,
  'may-not-deviate': ({ deviations }: { deviations: readonly string[] }) =>
    `This run would not follow the house rules. ${deviations.join(' ')} ${whyNot('deviate')}`,
  'scatter-too-large': ({
    ownPercent,
    knownPercent,
  }: {
    ownPercent: number;
    knownPercent: number;
  }) =>
    `These titrations scatter by ${figureText(roundHalfEven(ownPercent, 2))} %, more than the ${figureText(roundHalfEven(knownPercent, 2))} % that the method usually shows: their own scatter counts. Say why the result stands.`,
  'incident-unresolved': ({
    flask,
    incident,
    verdict,
    reason,
  }: {
    flask: number;
    incident: string;
    verdict: keyof typeof NOT_FOLLOWED;
    reason: string;
  }) => `Flask ${String(flask)}, “${incident}” was noted: ${reason} ${NOT_FOLLOWED[verdict]}`,
  'burette-fault': ({ check, remark }: { check: string; remark: string }) =>
    `At the last look at the burette this was not so: “${check}”${remark === '' ? '' : ` (${remark})`}. Look at it again, or say why the result stands.`,
  'off-accepted': ({
    percent,
    acceptedMolPerL,
    atMostPercent,
  }: {
    percent: number;
    acceptedMolPerL: string | null;
    atMostPercent: string;
  }) => {
    const from =
      acceptedMolPerL === null ? 'the label' : `the ${acceptedMolPerL} mol/L accepted before`;
    return `The molarity is ${figureText(roundHalfEven(percent, 1))} % from ${from}, more than the ${figureText(atMostPercent)} % of the house rule. Say why it is certified.`;
  },
  'out-of-use-since': ({ name, reason }: { name: string; reason: string }) =>
    `${name} is out of use: ${endOfSentence(reason)} Say why the result stands all the same.`,
};
