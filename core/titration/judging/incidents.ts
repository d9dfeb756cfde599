import type { Assessment, Incident, Verdict } from '../../incident';
import { featuresOf, incidentsFor } from '../../incident';
import {
  assessOn,
  blankOf,
  endPointOf,
  forecastFlask,
  incidentCorrections,
  plainDeterminationOfRun,
} from '../figures';
import type { Flask, NotedIncident, RunState } from '../run';
import { readingsOf, titreMl as titreOf } from '../run';
import { arrangementOf, soughtOf } from '../setUp';
import type { Judgement } from './judge';

/** The incidents that can happen in such a run. */
export function incidentsOf(run: RunState): readonly Incident[] {
  const { portion } = arrangementOf(run.references);
  const kind = portion.unit === 'g' ? 'weighed' : 'aliquot';
  return incidentsFor(featuresOf(run.references.method, kind));
}

/**
 * Whether an incident matters, which way and how much, on the numbers of one flask: its titre, or the one expected; the molarity
 * found so far, or the nominal one.
 *
 * @throws Unanswerable as `assessIncident`.
 */
export function assessFlaskIncident(
  run: RunState,
  judgement: Judgement,
  flask: Flask,
  noted: Omit<NotedIncident, 'remark'>,
): Assessment {
  const titre = Number(titreOf(flask) ?? 0) + endPointOf(run, flask).correctionMl;
  return assessOn(run, flask, noted, {
    determination: plainDeterminationOfRun(run),
    titreMl: titre > 0 ? titre : forecastFlask(run, flask, null).titreMl,
    molarityMolPerL: judgement.averaged?.mean ?? soughtOf(run.references).expected,
  });
}

/** What an incident asks for and nobody did; the figures are as they were read. */
type Unfollowed = Extract<Verdict, 'void' | 'correct' | 'act-now' | 'discard-solution'>;

/** An incident whose verdict was not followed. */
export interface Unresolved {
  readonly flask: number;
  readonly incident: Incident;
  readonly verdict: Unfollowed;
  readonly reason: string;
}

/**
 * Incidents whose verdicts stand: those of titrations that count, and one that spoils the solution whatever becomes of its flask. One
 * that was measured, bracketed, taken off by a blank or put right in the entries is corrected.
 */
export function unresolvedIncidents(run: RunState, judgement: Judgement): readonly Unresolved[] {
  return judgement.replicates.flatMap(({ flask, verdict: became }) => {
    const corrected = new Set(incidentCorrections(run, flask).map(({ factId }) => factId));
    return flask.incidents.flatMap((noted): readonly Unresolved[] => {
      const assessment = assessFlaskIncident(run, judgement, flask, noted);
      const { incident, verdict, reason } = assessment;
      const stands =
        isUnfollowed(verdict) &&
        (became === 'counts' || verdict === 'discard-solution') &&
        !(
          verdict === 'correct' &&
          (corrected.has(noted.factId) || isPutRight(run, flask, incident))
        );
      return stands ? [{ flask: flask.number, incident, verdict, reason }] : [];
    });
  });
}

/** Whether a figure was put right otherwise than by a measured size. */
function isPutRight(run: RunState, flask: Flask, incident: Incident): boolean {
  switch (incident.putRightBy ?? null) {
    case 'blank':
      return blankOf(run).kind !== 'none';
    case 'bracket':
      return endPointOf(run, flask).by === 'bracket';
    case 'correction':
      return [flask.portion, ...readingsOf(flask).map(({ entry }) => entry)].some(
        ({ superseded }) => superseded.length > 0,
      );
    case null:
      return false;
  }
}

function isUnfollowed(verdict: Verdict): verdict is Unfollowed {
  return verdict !== 'note' && verdict !== 'carry-on';
}
