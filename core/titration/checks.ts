import type { PlainDate } from '../laboratory';
import { decimalPlaces, roundHalfEven, subtractDecimals } from '../measurement';
import type { Weighing } from '../metrology';
import { checkShownDecimals, checkWeighing, isCalibrationOverdue, netMassG } from '../metrology';
import { freshnessOf, isLotExpired, mayBeUsed } from '../reagent';
import type { Finding } from '../record';
import { impossible, unlikely } from '../record';
import { suspectReading } from '../slip';
import { buretteChecks } from './buretteCheck';
import type { RunFact } from './facts';
import type { Forecast } from './forecast';
import { forecastFlask, forecastTitre } from './forecast';
import { incidentsOf } from './incidents';
import type { Flask, ReadingPlace, RunReferences, RunState } from './run';
import {
  entriesAt,
  flaskUnderBurette,
  isBlank,
  openConflicts,
  openRefill,
  pauseOf,
  placeName,
  readingAt,
  readingsOf,
  readingToCarryOver,
  refillPlace,
  stretchesOf,
} from './run';
import { instrumentOf, standardSubstanceId } from './standard';

/** A titre stranger than this many expected half-bands is asked about. */
const STRANGE_HALF_BANDS = 3;

/** Below this part of the burette a titre is mostly reading error. */
const TOO_SMALL_PART = 0.1;

/**
 * Checks the next fact of an open run against the run so far. The same function guards the entry fields in the
 * browser and the record on the server.
 */
export function checkRunFact(run: RunState, fact: RunFact): readonly Finding[] {
  if (run.status !== 'open') {
    return [
      impossible(
        'run-closed',
        'run',
        `This run is ${run.status}; its figures are frozen and nothing can be added.`,
      ),
    ];
  }
  switch (fact.kind) {
    case 'run.started':
      return [impossible('already-started', 'run', 'This run has been started already.')];
    case 'run.flask-weighed':
    case 'run.flask-pipetted':
    case 'run.blank-made':
      return checkPortion(run, fact);
    case 'run.burette-read':
      return checkNewReading(run, fact.body.flask, fact.body.moment, fact.body);
    case 'run.burette-refilled': {
      const { flask, moment, refill, readingMl } = fact.body;
      return checkNewReading(run, flask, refillPlace(moment, refill), {
        readingMl,
        carriedFrom: null,
      });
    }
    case 'run.provisional-read': {
      const flask = flaskOf(run, fact.body.flask);
      if (!flask) return [unknownFlask(fact.body.flask)];
      if (flask !== flaskUnderBurette(run) || openRefill(flask) !== null) {
        return [notUnderBurette(flask)];
      }
      return [
        ...checkScale(run, fact.body.readingMl),
        ...checkDownwards(readingsOf(flask).at(-1)?.entry.value ?? '0', fact.body.readingMl, false),
      ].slice(0, 1);
    }
    case 'run.temperature-taken':
      return checkTemperature(run, fact.body.flask, Number(fact.body.temperatureC));
    case 'run.reading-confirmed': {
      const entry = run.flasks
        .flatMap(readingsOf)
        .find(({ entry: { factId } }) => factId === fact.body.confirms)?.entry;
      if (!entry) return [unknownEntry('confirms')];
      const message = 'A reading is confirmed by a second person, not by its author.';
      return entry.by === fact.authorId ? [impossible('same-person', 'confirms', message)] : [];
    }
    case 'run.paused':
      return pauseOf(run)
        ? [impossible('paused-already', 'run', 'This run is paused already.')]
        : [];
    case 'run.resumed':
      return pauseOf(run) ? [] : [impossible('not-paused', 'run', 'This run is not paused.')];
    case 'run.end-point-graded': {
      const flask = flaskOf(run, fact.body.flask);
      if (!flask) return [unknownFlask(fact.body.flask)];
      return flask.final
        ? []
        : [
            impossible(
              'no-end-point',
              'grade',
              'Read the end point first, then say how it was met.',
            ),
          ];
    }
    case 'run.end-point-taken-back':
      return checkTakeBack(run, fact.body.flask);
    case 'run.burette-checked': {
      const known = buretteChecks(run.references.method, run.setUp.rules);
      const isUnknown = fact.body.faults.some(
        ({ checkId }) => !known.some(({ id }) => id === checkId),
      );
      return isUnknown
        ? [impossible('unknown-check', 'faults', 'There is no such check of the burette.')]
        : [];
    }
    case 'run.incident-noted': {
      const { flask: number, incidentId } = fact.body;
      if (!flaskOf(run, number)) return [unknownFlask(number)];
      return incidentsOf(run).some(({ id }) => id === incidentId)
        ? []
        : [impossible('unknown-incident', 'incidentId', 'This cannot happen in such a run.')];
    }
    case 'run.weighing-corrected':
      return hasPortion(run, fact.body.corrects, 'mass')
        ? impossibleOnly(checkWeighingOf(run, fact.body.weighing))
        : [unknownEntry('weighing')];
    case 'run.volume-corrected':
      return hasPortion(run, fact.body.corrects, 'volume')
        ? impossibleOnly(checkAliquot(run, fact.body.volumeMl))
        : [unknownEntry('volumeMl')];
    case 'run.reading-corrected':
      return checkCorrectedReading(run, fact.body.corrects, fact.body.readingMl);
    case 'run.conflict-settled': {
      const { keeps } = fact.body;
      const isOpen = openConflicts(run).some(({ flask: number, place }) => {
        const flask = flaskOf(run, number);
        return flask && entriesAt(flask, place).some(({ factId }) => factId === keeps);
      });
      return isOpen ? [] : [unknownEntry('keeps')];
    }
    case 'run.flask-voided': {
      const flask = flaskOf(run, fact.body.flask);
      if (!flask) return [unknownFlask(fact.body.flask)];
      return flask.voided
        ? [impossible('already-void', 'flask', `Flask ${String(flask.number)} is void already.`)]
        : [];
    }
    case 'run.abandoned':
    case 'run.certified':
      return [];
  }
}

/** What speaks against starting a run with these records today. */
export function checkRunStart(references: RunReferences, today: PlainDate): readonly Finding[] {
  const { method, bottle, standard, burette } = references;
  const findings: Finding[] = [];
  if (!method.titrantIds.includes(bottle.substanceId)) {
    findings.push(
      impossible(
        'wrong-titrant',
        'bottle',
        'This method does not standardize what is in the bottle.',
      ),
    );
  }
  if (method.standardId !== standardSubstanceId(standard)) {
    const message = 'This is not the standard that the method asks for.';
    findings.push(impossible('wrong-standard', 'standard', message));
  }
  findings.push(...checkStandard(references, today));
  const instruments = [
    ['instrument', instrumentOf(standard)] as const,
    ['burette', burette] as const,
  ];
  for (const [field, item] of instruments) {
    if (isCalibrationOverdue(item, today)) {
      findings.push(
        unlikely(
          'calibration-overdue',
          field,
          `The calibration of ${item.name} was due on ${item.calibrationDue ?? ''}.`,
        ),
      );
    }
  }
  return findings;
}

function checkStandard(
  { method, bottle, standard }: RunReferences,
  today: PlainDate,
): readonly Finding[] {
  const takes = standard.kind === 'lot' ? 'weighed' : 'aliquot';
  if (!method.portions.some(({ kind }) => kind === takes)) {
    const message = `This method takes no ${takes === 'weighed' ? 'weighed standard' : 'aliquots'}.`;
    return [impossible('wrong-portion', 'standard', message)];
  }
  if (standard.kind === 'lot') {
    const { lot } = standard.lot;
    if (lot.dissolved) {
      return [impossible('not-solid', 'standard', `Lot ${lot.lotNumber} is a solution.`)];
    }
    const message = `Lot ${lot.lotNumber} is past its use-by date, ${lot.useBy ?? ''}.`;
    return isLotExpired(lot, today) ? [unlikely('lot-expired', 'standard', message)] : [];
  }
  const { code, id } = standard.bottle;
  if (id === bottle.id) {
    return [impossible('same-bottle', 'standard', 'A bottle cannot be its own standard.')];
  }
  const freshness = freshnessOf(standard.bottle, today);
  if (!('known' in freshness)) {
    const message = `The molarity of bottle ${code} is only nominal: standardize it first.`;
    return [impossible('not-standardized', 'standard', message)];
  }
  if (mayBeUsed(freshness)) return [];
  const message = `Bottle ${code} is past its last day, ${freshness.known.until ?? ''}.`;
  return [unlikely('standard-overdue', 'standard', message)];
}

function flaskOf(run: RunState, number: number): Flask | undefined {
  return run.flasks.find((flask) => flask.number === number);
}

function hasPortion(run: RunState, factId: string, kind: 'mass' | 'volume'): boolean {
  return run.flasks.some(({ portion }) => portion.factId === factId && portion.value.kind === kind);
}

function checkPortion(
  run: RunState,
  fact: Extract<RunFact, { kind: 'run.flask-weighed' | 'run.flask-pipetted' | 'run.blank-made' }>,
): readonly Finding[] {
  if (flaskOf(run, fact.body.flask)) {
    const message = `Flask ${String(fact.body.flask)} is filled already. Correct what it holds, or use the next number.`;
    return [impossible('already-filled', 'portion', message)];
  }
  switch (fact.kind) {
    case 'run.flask-weighed':
      return checkWeighingOf(run, fact.body.weighing);
    case 'run.flask-pipetted':
      return checkAliquot(run, fact.body.volumeMl);
    case 'run.blank-made':
      return [];
  }
}

function checkWeighingOf(run: RunState, weighing: Weighing): readonly Finding[] {
  const { standard } = run.references;
  if (standard.kind !== 'lot') {
    return [impossible('not-weighed', 'massG', 'This run takes aliquots: nothing is weighed.')];
  }
  const found = checkWeighing(weighing, standard.balance);
  if (found.some(({ severity }) => severity === 'impossible')) return found;
  const field = weighing.mode === 'tared' ? 'massG' : 'afterG';
  return [...found, ...checkAgainstPlan(run, Number(netMassG(weighing)), 'mass', field)];
}

function checkAliquot(run: RunState, volumeMl: string): readonly Finding[] {
  const { standard } = run.references;
  if (standard.kind !== 'bottle') {
    return [impossible('not-pipetted', 'volumeMl', 'This run weighs its standard.')];
  }
  const vessel = instrumentOf(standard);
  if (Number(volumeMl) <= 0) {
    return [impossible('no-volume', 'volumeMl', 'The volume must be more than 0 mL.')];
  }
  if (vessel.type === 'burette' && Number(volumeMl) > Number(vessel.capacityMl)) {
    const message = `${vessel.name} holds ${vessel.capacityMl} mL.`;
    return [impossible('over-capacity', 'volumeMl', message)];
  }
  if (vessel.type === 'glassware' && Number(volumeMl) !== Number(vessel.volumeMl)) {
    const message = `${vessel.name} delivers ${vessel.volumeMl} mL. Was it another pipette?`;
    return [unlikely('other-volume', 'volumeMl', message)];
  }
  return checkAgainstPlan(run, Number(volumeMl), 'aliquot', 'volumeMl');
}

/** Compares a portion with what the burette can titrate, at the molarity known so far. */
function checkAgainstPlan(
  run: RunState,
  amount: number,
  what: 'mass' | 'aliquot',
  field: string,
): readonly Finding[] {
  const capacityMl = Number(run.references.burette.capacityMl);
  const { titreMl: titre } = forecastTitre(run, amount, null);
  const plainTitre = titre >= 100 ? roundHalfEven(titre, 0) : roundHalfEven(titre, 1);
  if (titre > capacityMl) {
    const tenfold = titre > 4 * capacityMl ? ' Is the decimal point in its place?' : '';
    const message = `This ${what} would take ${plainTitre} mL, more than the burette's ${run.references.burette.capacityMl} mL.${tenfold}`;
    return [unlikely(`${what}-too-large`, field, message)];
  }
  if (titre < TOO_SMALL_PART * capacityMl) {
    const message = `This ${what} would take only ${plainTitre} mL; reading errors would dominate. Is the decimal point in its place?`;
    return [unlikely(`${what}-too-small`, field, message)];
  }
  return [];
}

interface NewReading {
  readonly readingMl: string;
  readonly carriedFrom: string | null;
}

function checkNewReading(
  run: RunState,
  number: number,
  place: ReadingPlace,
  { readingMl, carriedFrom }: NewReading,
): readonly Finding[] {
  const flask = flaskOf(run, number);
  if (!flask) return [unknownFlask(number)];
  const name = `Flask ${String(flask.number)}`;
  if (flask.voided) return [impossible('flask-void', 'readingMl', `${name} is void.`)];
  const known = readingAt(flask, place);
  if (known) {
    const message = `${name} has its ${placeName(place)} already, ${known.value} mL. Correct that one instead.`;
    return [impossible('already-read', 'readingMl', message)];
  }
  const outside = checkScale(run, readingMl);
  if (outside.length > 0) return outside;
  if (place === 'initial') return checkInitialReading(run, flask, readingMl, carriedFrom);
  if (!flask.initial) {
    const message =
      'Read the level before you titrate: a titration without its initial reading is lost.';
    return [impossible('no-initial-reading', 'readingMl', message)];
  }
  if (place.startsWith('restart')) return checkRestart(run, flask, place, readingMl);
  if (openRefill(flask) !== null) {
    const message = 'The burette was refilled: read the level that it goes on from first.';
    return [impossible('refill-open', 'readingMl', message)];
  }
  if (place !== 'final') {
    const isNext = place === refillPlace('stop', flask.refills.length + 1);
    if (flask.final || !isNext) return [notUnderBurette(flask)];
  }
  const from = readingsOf(flask).at(-1)?.entry.value ?? '0';
  const upwards = checkDownwards(from, readingMl, isBlank(flask) && place === 'final');
  if (upwards.length > 0) return upwards;
  return place === 'final'
    ? checkFinalReading(run, flask, from, readingMl)
    : checkReadingDecimals(run, readingMl);
}

function checkRestart(
  run: RunState,
  flask: Flask,
  place: ReadingPlace,
  readingMl: string,
): readonly Finding[] {
  const refill = openRefill(flask);
  if (refill === null || place !== refillPlace('restart', refill)) {
    const message = 'Read the level at which you stopped before the refill first.';
    return [impossible('no-stop', 'readingMl', message)];
  }
  return checkReadingDecimals(run, readingMl);
}

function checkInitialReading(
  run: RunState,
  flask: Flask,
  readingMl: string,
  carriedFrom: string | null,
): readonly Finding[] {
  const busy = flaskUnderBurette(run);
  if (busy) {
    const message = `Flask ${String(busy.number)} is still under the burette: read its end point first, or void it.`;
    return [impossible('burette-busy', 'readingMl', message)];
  }
  if (carriedFrom !== null) {
    const source = readingToCarryOver(run);
    if (source?.factId !== carriedFrom || source.value !== readingMl) {
      const message = 'Only the last final reading can be carried over, and only as it stands.';
      return [impossible('not-the-last-reading', 'readingMl', message)];
    }
  }
  const { onBurette } = forecastFlask(run, flask, Number(readingMl));
  const end = onBurette?.expected ?? 0;
  const capacityMl = run.references.burette.capacityMl;
  const decimals = carriedFrom === null ? checkReadingDecimals(run, readingMl) : [];
  if (end <= Number(capacityMl)) return decimals;
  const message = `From here the end point is expected at ${roundHalfEven(end, 1)}, beyond the last mark at ${capacityMl} mL. Refill first, or in the middle: that costs two more readings.`;
  return [...decimals, unlikely('will-not-hold', 'readingMl', message)];
}

/** `from` is the reading that the last stretch began with. */
function checkFinalReading(
  run: RunState,
  flask: Flask,
  from: string,
  readingMl: string,
): readonly Finding[] {
  const forecast = forecastFlask(run, flask, null);
  const expected = forecast.onBurette?.expected ?? 0;
  const decimals = checkReadingDecimals(run, readingMl);
  if (Math.abs(Number(readingMl) - expected) <= STRANGE_HALF_BANDS * forecast.halfBandMl) {
    return decimals;
  }
  const message = isBlank(flask)
    ? 'A blank takes a few tenths of a millilitre at most. Read again; if it stands, say why.'
    : `The end point was expected near ${roundHalfEven(expected, 2)}. ${suspectedSlip(run, forecast, from, readingMl)}`;
  return [...decimals, unlikely('titre-off-forecast', 'readingMl', message)];
}

/** Water boils here; a flask far above or below the room is not what was measured. */
const WATER_BOILS_C = 100;

function checkTemperature(run: RunState, number: number, temperatureC: number): readonly Finding[] {
  const flask = flaskOf(run, number);
  if (!flask) return [unknownFlask(number)];
  if (temperatureC < 0 || temperatureC > WATER_BOILS_C + 20) {
    const message = 'A flask has between 0 and 120 °C.';
    return [impossible('no-such-temperature', 'temperatureC', message)];
  }
  const [least, most] = run.references.method.flaskTemperatureC ?? [0, WATER_BOILS_C];
  if (temperatureC > most + OVERHEATED_K) {
    const message = `The method keeps the flask below ${String(most)} °C: what boils or nearly boils loses standard. Void the flask, or say why it counts.`;
    return [unlikely('too-hot', 'temperatureC', message)];
  }
  if (temperatureC < least) {
    const message = `Below ${String(least)} °C the reaction is slow and the colour stays before the end. Heat it again; if it is to be titrated like this, say why.`;
    return [unlikely('too-cold', 'temperatureC', message)];
  }
  return [];
}

/** A thermometer in a hot flask may stand this far above the window before it is asked about, K. */
const OVERHEATED_K = 5;

/** An end point may be taken back until something rests on it. */
function checkTakeBack(run: RunState, number: number): readonly Finding[] {
  const flask = flaskOf(run, number);
  if (!flask) return [unknownFlask(number)];
  const name = `Flask ${String(number)}`;
  if (flask.voided) return [impossible('flask-void', 'flask', `${name} is void.`)];
  if (!flask.final) {
    return [impossible('no-end-point', 'flask', `${name} has no end point to take back.`)];
  }
  return run.level?.flask === number && !flaskUnderBurette(run)
    ? []
    : [
        impossible(
          'rested-on',
          'flask',
          'The next titration began after it: void the flask instead, or correct its reading.',
        ),
      ];
}

/** Names the reading that was probably meant, when a known slip explains it. */
function suspectedSlip(
  run: RunState,
  { onBurette, halfBandMl }: Forecast,
  initialMl: string,
  typedMl: string,
): string {
  const decimals = decimalPlaces(run.setUp.rules.readingResolutionMl);
  const found = suspectReading(Number(typedMl), {
    initialMl: Number(initialMl),
    expectedTitreMl: (onBurette?.expected ?? 0) - Number(initialMl),
    halfBandMl,
    capacityMl: Number(run.references.burette.capacityMl),
    decimals,
  });
  if (!found) return 'Read again; if it stands, say why.';
  return `${found.question} Then ${roundHalfEven(found.meant, decimals)} was meant.`;
}

function checkCorrectedReading(
  run: RunState,
  corrects: string,
  readingMl: string,
): readonly Finding[] {
  const touched = run.flasks.filter((flask) =>
    readingsOf(flask).some(({ entry }) => entry.factId === corrects),
  );
  const isProvisional = run.flasks.some(({ provisional }) =>
    provisional.some(({ factId }) => factId === corrects),
  );
  if (touched.length === 0 && !isProvisional) return [unknownEntry('readingMl')];
  const outside = checkScale(run, readingMl);
  if (outside.length > 0) return outside;
  const now = ({ factId, value }: { readonly factId: string; readonly value: string }): string =>
    factId === corrects ? readingMl : value;
  return touched
    .flatMap((flask) =>
      stretchesOf(flask).flatMap(({ from, to }) =>
        checkDownwards(now(from), now(to), isBlank(flask) && to.factId === flask.final?.factId),
      ),
    )
    .slice(0, 1);
}

function checkScale(run: RunState, readingMl: string): readonly Finding[] {
  const { capacityMl } = run.references.burette;
  if (Number(readingMl) >= 0 && Number(readingMl) <= Number(capacityMl)) return [];
  const message = `The burette reads from 0 to ${capacityMl} mL; below its last mark the volume is unknown.`;
  return [impossible('off-scale', 'readingMl', message)];
}

/** `mayStay`: a blank may take nothing. */
function checkDownwards(fromMl: string, toMl: string, mayStay: boolean): readonly Finding[] {
  const delivered = Number(subtractDecimals(toMl, fromMl));
  if (delivered > 0 || (delivered === 0 && mayStay)) return [];
  const message = `A burette reads downwards: this must be beyond the reading before it, ${fromMl} mL. Was it refilled? Then write down both levels.`;
  return [impossible('reads-upwards', 'readingMl', message)];
}

function checkReadingDecimals(run: RunState, readingMl: string): readonly Finding[] {
  const { readingResolutionMl } = run.setUp.rules;
  const decimals = decimalPlaces(readingResolutionMl);
  const shown = checkShownDecimals([readingMl], decimals, 'readingMl', 'The burette is read to');
  const steps = Number(readingMl) / Number(readingResolutionMl);
  if (shown.length > 0 || Math.abs(steps - Math.round(steps)) < 1e-6) return shown;
  const message = `The house rule reads the burette in steps of ${readingResolutionMl} mL.`;
  return [unlikely('off-resolution', 'readingMl', message)];
}

/** A correction brings its own reason, so only what cannot be is held against it. */
function impossibleOnly(findings: readonly Finding[]): readonly Finding[] {
  return findings.filter((finding) => finding.severity === 'impossible');
}

function unknownEntry(field: string): Finding {
  return impossible('unknown-entry', field, 'There is no such entry in this run to correct.');
}

function unknownFlask(number: number): Finding {
  const message = `Flask ${String(number)} is empty: measure something into it first.`;
  return impossible('unknown-flask', 'flask', message);
}

function notUnderBurette({ number }: Flask): Finding {
  const message = `Flask ${String(number)} is not being titrated at this moment.`;
  return impossible('not-titrating', 'flask', message);
}
