import type { Assessment, Incident, Verdict } from '../../incident';
import { assessIncident, featuresOf, incidentsFor } from '../../incident';
import { combineComponents } from '../../measurement';
import { buretteReading } from '../../metrology';
import { deliveredIn, endPointOf, forecastFlask, plainDeterminationOfRun } from '../figures';
import type { Flask, MeasuredIncident, RunState } from '../run';
import { titreMl as titreOf } from '../run';
import { arrangementOf, soughtOf } from '../setUp';
import type { Judgement } from './judge';

/** Water in a flask when nobody measured it, mL: it dissolves the standard and is in no equation. */
const WATER_ML = 50;

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
  incidentId: string,
  measured: MeasuredIncident | null,
): Assessment {
  const { burette } = run.references;
  const titre = Number(titreOf(flask) ?? 0) + endPointOf(run, flask).correctionMl;
  const molarity = judgement.averaged?.mean ?? soughtOf(run.references).expected;
  const determination = plainDeterminationOfRun(run);
  const amount = deliveredIn(run.references, flask);
  return assessIncident(
    incidentId,
    determination,
    {
      titreMl: titre > 0 ? titre : forecastFlask(run, flask, null).titreMl,
      titrantMolarityMolPerL: determination.titrantMolPerL ?? molarity,
      portion: flask.portion.value.kind === 'mass' ? { massG: amount } : { aliquotMl: amount },
      buretteCapacityMl: Number(burette.capacityMl),
      dropMl: Number(burette.dropMl),
      readingUncertaintyMl: combineComponents(buretteReading(burette)),
      waterMl: WATER_ML,
      volumetricFlaskMl: null,
    },
    measured ? { [measured.what]: Number(measured.value) } : {},
  );
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
 * Incidents whose verdicts stand: those of titrations that count, and one that spoils the solution whatever becomes of its flask.
 * A size that was measured is no size that was corrected.
 */
export function unresolvedIncidents(run: RunState, judgement: Judgement): readonly Unresolved[] {
  return judgement.replicates.flatMap(({ flask, verdict: became }) =>
    flask.incidents.flatMap(({ incidentId, measured }): readonly Unresolved[] => {
      const { incident, verdict, reason } = assessFlaskIncident(
        run,
        judgement,
        flask,
        incidentId,
        measured,
      );
      return isUnfollowed(verdict) && (became === 'counts' || verdict === 'discard-solution')
        ? [{ flask: flask.number, incident, verdict, reason }]
        : [];
    }),
  );
}

function isUnfollowed(verdict: Verdict): verdict is Unfollowed {
  return verdict !== 'note' && verdict !== 'carry-on';
}
