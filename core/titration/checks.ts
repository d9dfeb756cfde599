import type { PlainDate } from '../laboratory';
import { roundHalfEven, subtractDecimals } from '../measurement';
import type { Weighing } from '../metrology';
import { checkShownDecimals, checkWeighing, isCalibrationOverdue, netMassG } from '../metrology';
import { isLotExpired } from '../reagent';
import type { Finding } from '../record';
import { impossible, unlikely } from '../record';
import { suspectReading } from '../slip';
import { buretteChecks } from './buretteCheck';
import type { RunFact } from './facts';
import type { Forecast } from './forecast';
import { forecastTitre } from './forecast';
import { incidentsOf } from './incidents';
import type { Flask, RunReferences, RunState } from './run';
import { flaskUnderBurette, openConflicts, readingToCarryOver } from './run';

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
      if (run.flasks.some((flask) => flask.number === fact.body.flask)) {
        const message = `Flask ${String(fact.body.flask)} has been weighed already. Correct that mass, or use the next number.`;
        return [impossible('already-weighed', 'weighing', message)];
      }
      return checkWeighingOf(run, fact.body.weighing);
    case 'run.burette-read':
      return checkNewReading(run, fact.body);
    case 'run.burette-checked': {
      const known = buretteChecks(run.references.method, run.setUp.rules.rinses);
      const isUnknown = fact.body.faults.some(
        ({ checkId }) => !known.some(({ id }) => id === checkId),
      );
      return isUnknown
        ? [impossible('unknown-check', 'faults', 'There is no such check of the burette.')]
        : [];
    }
    case 'run.incident-noted': {
      const { flask: number, incidentId } = fact.body;
      if (!run.flasks.some((flask) => flask.number === number)) return [unknownFlask(number)];
      return incidentsOf(run).some(({ id }) => id === incidentId)
        ? []
        : [impossible('unknown-incident', 'incidentId', 'This cannot happen in such a run.')];
    }
    case 'run.weighing-corrected': {
      const flask = run.flasks.find((item) => item.weighing.factId === fact.body.corrects);
      if (!flask) return [unknownEntry('weighing')];
      return impossibleOnly(checkWeighingOf(run, fact.body.weighing));
    }
    case 'run.reading-corrected':
      return checkCorrectedReading(run, fact.body.corrects, fact.body.readingMl);
    case 'run.conflict-settled': {
      const { keeps } = fact.body;
      const isOpen = openConflicts(run).some(({ flask: number, place }) => {
        const flask = run.flasks.find((item) => item.number === number);
        const entries = flask ? [flask[place], ...flask.rivals[place]] : [];
        return entries.some((entry) => entry?.factId === keeps);
      });
      return isOpen ? [] : [unknownEntry('keeps')];
    }
    case 'run.flask-voided': {
      const flask = run.flasks.find((item) => item.number === fact.body.flask);
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
  const { method, bottle, lot, balance, burette } = references;
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
  if (method.standardId !== lot.lot.substanceId) {
    findings.push(
      impossible('wrong-standard', 'lot', 'This lot is not the standard that the method asks for.'),
    );
  }
  if (isLotExpired(lot.lot, today)) {
    findings.push(
      unlikely(
        'lot-expired',
        'lot',
        `Lot ${lot.lot.lotNumber} is past its use-by date, ${lot.lot.useBy ?? ''}.`,
      ),
    );
  }
  for (const [field, item] of [['balance', balance] as const, ['burette', burette] as const]) {
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

function checkWeighingOf(run: RunState, weighing: Weighing): readonly Finding[] {
  const found = checkWeighing(weighing, run.references.balance);
  if (found.some(({ severity }) => severity === 'impossible')) return found;
  const field = weighing.mode === 'tared' ? 'massG' : 'afterG';
  return [...found, ...checkMassAgainstPlan(run, Number(netMassG(weighing)), field)];
}

/** Compares the mass with what the burette can titrate, at the molarity known so far. */
function checkMassAgainstPlan(run: RunState, massG: number, field: string): readonly Finding[] {
  const capacityMl = Number(run.references.burette.capacityMl);
  const { titreMl: titre } = forecastTitre(run, massG, null);
  const plainTitre = titre >= 100 ? roundHalfEven(titre, 0) : roundHalfEven(titre, 1);
  if (titre > capacityMl) {
    const tenfold = titre > 4 * capacityMl ? ' Is the decimal point in its place?' : '';
    const message = `This mass would take ${plainTitre} mL, more than the burette's ${run.references.burette.capacityMl} mL.${tenfold}`;
    return [unlikely('mass-too-large', field, message)];
  }
  if (titre < TOO_SMALL_PART * capacityMl) {
    const message = `This mass would take only ${plainTitre} mL; reading errors would dominate. Is the decimal point in its place?`;
    return [unlikely('mass-too-small', field, message)];
  }
  return [];
}

function checkNewReading(
  run: RunState,
  reading: Extract<RunFact, { kind: 'run.burette-read' }>['body'],
): readonly Finding[] {
  const flask = run.flasks.find((item) => item.number === reading.flask);
  if (!flask) return [unknownFlask(reading.flask)];
  const name = `Flask ${String(flask.number)}`;
  if (flask.voided) return [impossible('flask-void', 'readingMl', `${name} is void.`)];
  const known = flask[reading.moment];
  if (known) {
    const message = `${name} has its ${reading.moment} reading already, ${known.value} mL. Correct that one instead.`;
    return [impossible('already-read', 'readingMl', message)];
  }
  const outside = checkOnScale(run, reading.readingMl);
  if (outside) return [outside];
  return reading.moment === 'initial'
    ? checkInitialReading(run, flask, reading.readingMl, reading.carriedFrom)
    : checkFinalReading(run, flask, reading.readingMl);
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
  const massG = Number(netMassG(flask.weighing.value));
  const { onBurette } = forecastTitre(run, massG, Number(readingMl));
  const end = onBurette?.expected ?? 0;
  const capacityMl = run.references.burette.capacityMl;
  const decimals = carriedFrom === null ? checkReadingDecimals(run, readingMl) : [];
  if (end <= Number(capacityMl)) return decimals;
  const message = `From here the end point is expected at ${roundHalfEven(end, 1)}, beyond the last mark at ${capacityMl} mL. Refill first.`;
  return [...decimals, unlikely('will-not-hold', 'readingMl', message)];
}

function checkFinalReading(run: RunState, flask: Flask, readingMl: string): readonly Finding[] {
  const { initial } = flask;
  if (!initial) {
    const message =
      'Read the level before you titrate: a titration without its initial reading is lost.';
    return [impossible('no-initial-reading', 'readingMl', message)];
  }
  const upwards = checkDownwards(initial.value, readingMl);
  if (upwards) return [upwards];
  const massG = Number(netMassG(flask.weighing.value));
  const forecast = forecastTitre(run, massG, Number(initial.value));
  const titre = Number(subtractDecimals(readingMl, initial.value));
  const stray = Math.abs(titre - forecast.titreMl);
  const decimals = checkReadingDecimals(run, readingMl);
  if (stray <= STRANGE_HALF_BANDS * forecast.halfBandMl) return decimals;
  const message = `The end point was expected near ${roundHalfEven(forecast.onBurette?.expected ?? 0, 2)}. ${suspectedSlip(run, forecast, initial.value, readingMl)}`;
  return [...decimals, unlikely('titre-off-forecast', 'readingMl', message)];
}

/** Names the reading that was probably meant, when a known slip explains it. */
function suspectedSlip(
  run: RunState,
  { titreMl: expectedTitreMl, halfBandMl }: Forecast,
  initialMl: string,
  typedMl: string,
): string {
  const decimals = run.setUp.rules.readingDecimals;
  const found = suspectReading(Number(typedMl), {
    initialMl: Number(initialMl),
    expectedTitreMl,
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
  const touched = run.flasks.filter(
    (flask) => flask.initial?.factId === corrects || flask.final?.factId === corrects,
  );
  if (touched.length === 0) return [unknownEntry('readingMl')];
  const outside = checkOnScale(run, readingMl);
  if (outside) return [outside];
  for (const { initial, final } of touched) {
    if (!initial || !final) continue;
    const upwards = checkDownwards(
      initial.factId === corrects ? readingMl : initial.value,
      final.factId === corrects ? readingMl : final.value,
    );
    if (upwards) return [upwards];
  }
  return [];
}

function checkOnScale(run: RunState, readingMl: string): Finding | null {
  const { capacityMl } = run.references.burette;
  if (Number(readingMl) >= 0 && Number(readingMl) <= Number(capacityMl)) return null;
  const message = `The burette reads from 0 to ${capacityMl} mL; below its last mark the volume is unknown.`;
  return impossible('off-scale', 'readingMl', message);
}

function checkDownwards(initialMl: string, finalMl: string): Finding | null {
  if (Number(finalMl) > Number(initialMl)) return null;
  const message = `A burette reads downwards: the final reading must be beyond the initial one, ${initialMl} mL.`;
  return impossible('reads-upwards', 'readingMl', message);
}

function checkReadingDecimals(run: RunState, readingMl: string): readonly Finding[] {
  const decimals = run.setUp.rules.readingDecimals;
  return checkShownDecimals([readingMl], decimals, 'readingMl', 'The burette is read to');
}

/** A correction brings its own reason, so only what cannot be is held against it. */
function impossibleOnly(findings: readonly Finding[]): readonly Finding[] {
  return findings.filter((finding) => finding.severity === 'impossible');
}

function unknownEntry(field: string): Finding {
  return impossible('unknown-entry', field, 'There is no such entry in this run to correct.');
}

function unknownFlask(number: number): Finding {
  const message = `Flask ${String(number)} has not been weighed: weigh the standard into it first.`;
  return impossible('unknown-flask', 'flask', message);
}
