import type { Finding } from '../record';
import { impossible, unlikely } from '../record';
import { buretteChecks } from './buretteCheck';
import type { RunFact } from './facts';
import { incidentsOf } from './incidents';
import { checkAliquot, checkPortion, checkWeighingOf } from './portionChecks';
import {
  checkCorrectedReading,
  checkElectrodeReading,
  checkNewReading,
  checkProvisionalReading,
} from './readingChecks';
import { unknownEntry, unknownFlask } from './refusals';
import {
  entriesAt,
  flaskOf,
  flaskUnderBurette,
  openConflicts,
  pauseOf,
  readingsOf,
  refillPlace,
} from './run';
import type { RunState } from './state';

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
    case 'run.provisional-read':
      return checkProvisionalReading(run, fact.body.flask, fact.body.readingMl);
    case 'run.electrode-read':
      return checkElectrodeReading(run, fact.body);
    case 'run.electrode-reading-struck':
      return run.flasks.some(({ electrode }) =>
        electrode.some(({ factId, struck }) => factId === fact.body.strikes && !struck),
      )
        ? []
        : [unknownEntry('strikes')];
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
    case 'run.flask-photographed': // the server makes this one and the next, and checks them itself
    case 'run.certified':
      return [];
  }
}

function hasPortion(run: RunState, factId: string, kind: 'mass' | 'volume'): boolean {
  return run.flasks.some(({ portion }) => portion.factId === factId && portion.value.kind === kind);
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

/** A correction brings its own reason, so only what cannot be is held against it. */
function impossibleOnly(findings: readonly Finding[]): readonly Finding[] {
  return findings.filter((finding) => finding.severity === 'impossible');
}
