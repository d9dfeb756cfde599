import type { Finding } from '../../record';
import { impossible, provenance } from '../../record';
import type { EndPointGrade, RunState } from '../run';
import { FINAL, flaskOf, flaskUnderBurette } from '../run';
import type { RunFactTable } from './draft';
import { draftAt, entryOf } from './draft';
import { unknownFlask } from './refusals';

/** How the end point was met, and that it was none. */
export interface EndPointBodies {
  'run.end-point-graded': { readonly flask: number; readonly grade: EndPointGrade };
  /** It was not the end point after all; its reading is kept as a provisional one. */
  'run.end-point-taken-back': { readonly flask: number; readonly reason: string };
}

export const END_POINT_FACTS: RunFactTable<EndPointBodies> = {
  'run.end-point-graded': {
    nature: 'observation',
    check: ({ body }, run) => {
      const flask = flaskOf(run, body.flask);
      if (!flask) return [unknownFlask(body.flask)];
      return flask.final ? [] : [impossible('no-end-point', 'grade')];
    },
    apply: (draft, fact) => {
      const flask = draft.flasks.get(fact.body.flask);
      if (flask) flask.grade = { ...provenance(fact), grade: fact.body.grade };
    },
    sentence: ({ flask }) => `flask ${String(flask)}, how its end point was met.`,
  },
  'run.end-point-taken-back': {
    nature: 'decision',
    check: ({ body }, run) => checkTakeBack(run, body.flask),
    // An end point that was none becomes a provisional reading, and what rivalled it does too.
    apply: (draft, fact) => {
      const flask = draft.flasks.get(fact.body.flask);
      const final = flask && draftAt(flask, FINAL);
      if (!flask || !final) return;
      for (const factId of [final.factId, ...final.rivals]) {
        const entry = entryOf(draft.readings, factId);
        draft.readings.set(factId, { ...entry, reason: fact.body.reason });
        flask.provisional = [...flask.provisional, factId];
      }
      flask.readings = flask.readings.filter((one) => one !== final);
      draft.endings.delete(final.factId);
      flask.grade = null;
    },
    sentence: ({ flask }) => `flask ${String(flask)}, its end point taken back.`,
  },
};

/** An end point may be taken back until something rests on it. */
function checkTakeBack(run: RunState, number: number): readonly Finding[] {
  const flask = flaskOf(run, number);
  if (!flask) return [unknownFlask(number)];
  if (flask.voided) return [impossible('flask-void', 'flask', { flask: number })];
  if (!flask.final) {
    return [impossible('no-end-to-take-back', 'flask', { flask: number })];
  }
  if (run.level?.flask === number && !flaskUnderBurette(run)) return [];
  return [impossible('titrated-since', 'flask')];
}
