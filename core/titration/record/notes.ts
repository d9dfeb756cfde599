import { figureText } from '../../measurement';
import type { DecimalText } from '../../measurement';
import type { Finding, StoredFile } from '../../record';
import { impossible, provenance, unlikely } from '../../record';
import { incidentsOf } from '../judging';
import type { BuretteLook, NotedIncident, RunState } from '../run';
import { flaskOf } from '../run';
import { buretteChecks } from '../setUp';
import type { RunFactTable } from './draft';
import { unknownFlask } from './refusals';

/** What is seen beside the readings. */
export interface NoteBodies {
  /** Of the flask, for a titration that must be hot. */
  'run.temperature-taken': {
    readonly flask: number;
    readonly temperatureC: DecimalText;
    readonly reason: string | null;
  };
  /** A finished flask as the shade to match; the picture is kept beside the facts. */
  'run.flask-photographed': { readonly flask: number } & StoredFile;
  /** The burette was looked over before a reading; faults are what was not as it should be. */
  'run.burette-checked': BuretteLook;
  /** Something that happened to a flask; asked about, judged, and kept with what was measured of it. */
  'run.incident-noted': NotedIncident & { readonly flask: number };
}

export const NOTE_FACTS: RunFactTable<NoteBodies, 'run.flask-photographed'> = {
  'run.temperature-taken': {
    nature: 'observation',
    check: ({ body }, run) => checkTemperature(run, body.flask, Number(body.temperatureC)),
    apply: (draft, fact) => {
      const flask = draft.flasks.get(fact.body.flask);
      const { temperatureC } = fact.body;
      if (!flask) return;
      flask.temperatures = [...flask.temperatures, { ...provenance(fact), temperatureC }];
    },
    sentence: ({ flask, temperatureC }) =>
      `flask ${String(flask)}, ${figureText(temperatureC)} °C.`,
  },
  'run.flask-photographed': {
    nature: 'observation',
    needsServer: true,
    file: ({ flask: _flask, ...file }) => file,
    check: ({ body: { flask } }, run) => (flaskOf(run, flask) ? [] : [unknownFlask(flask)]),
    apply: (draft, fact) => {
      const { flask: number, ...file } = fact.body;
      const flask = draft.flasks.get(number);
      if (flask) flask.photographs = [...flask.photographs, file];
    },
    sentence: ({ flask }) => `flask ${String(flask)}, a photograph.`,
  },
  'run.burette-checked': {
    nature: 'observation',
    check: ({ body }, run) => {
      const known = buretteChecks(run.references, run.setUp.rules);
      const isKnown = body.faults.every(({ checkId }) => known.some(({ id }) => id === checkId));
      return isKnown ? [] : [impossible('unknown-check', 'faults')];
    },
    apply: (draft, fact) => {
      draft.buretteChecked = [...draft.buretteChecked, { ...provenance(fact), ...fact.body }];
    },
    sentence: () => 'the check of the burette.',
  },
  'run.incident-noted': {
    nature: 'observation',
    earlier: [toIncidentWithoutCircumstances],
    check: ({ body: { flask, incidentId } }, run) => {
      if (!flaskOf(run, flask)) return [unknownFlask(flask)];
      const isKnown = incidentsOf(run).some(({ id }) => id === incidentId);
      return isKnown ? [] : [impossible('unknown-incident', 'incidentId')];
    },
    apply: (draft, fact) => {
      const flask = draft.flasks.get(fact.body.flask);
      if (flask) flask.incidents = [...flask.incidents, { ...provenance(fact), ...fact.body }];
    },
    sentence: ({ flask }) => `flask ${String(flask)}, an incident.`,
  },
};

/** The circumstances of an incident were not asked. */
function toIncidentWithoutCircumstances(body: unknown): unknown {
  return { ...(body as object), waterMl: null, volumetricFlaskMl: null };
}

/** Water boils here; a flask far above or below the room is not what was measured. */
const WATER_BOILS_C = 100;

/** A thermometer in a hot flask may stand this far above the window before it is asked about, K. */
const OVERHEATED_K = 5;

function checkTemperature(run: RunState, number: number, temperatureC: number): readonly Finding[] {
  const flask = flaskOf(run, number);
  if (!flask) return [unknownFlask(number)];
  if (temperatureC < 0 || temperatureC > WATER_BOILS_C + 20) {
    return [impossible('no-such-temperature', 'temperatureC')];
  }
  const [least, most] = run.references.method.flaskTemperatureC ?? [0, WATER_BOILS_C];
  if (temperatureC > most + OVERHEATED_K) {
    return [unlikely('too-hot', 'temperatureC', { mostC: most })];
  }
  if (temperatureC < least) {
    return [unlikely('too-cold', 'temperatureC', { leastC: least })];
  }
  return [];
}
