import type { Assessment, Incident } from '../../incident';
import { assessIncident, featuresOf, incidentsFor } from '../../incident';
import { combineComponents } from '../../measurement';
import { buretteReading } from '../../metrology';
import { nominalMolPerL } from '../../reagent';
import { deliveredIn, endPointOf, forecastFlask, plainDeterminationOfRun } from '../figures';
import type { Flask, MeasuredIncident, RunState } from '../run';
import { titreMl as titreOf } from '../run';
import { arrangementOf } from '../setUp';
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
  const { bottle, burette } = run.references;
  const titre = Number(titreOf(flask) ?? 0) + endPointOf(run, flask).correctionMl;
  const molarity = judgement.averaged?.mean ?? nominalMolPerL(bottle);
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

/** A titration that counts although something happened to it that spoils it. */
export interface Unresolved {
  readonly flask: number;
  readonly assessment: Assessment;
}

/** Incidents that spoil a titration which is counted all the same. */
export function unresolvedIncidents(run: RunState, judgement: Judgement): readonly Unresolved[] {
  return judgement.replicates
    .filter(({ verdict }) => verdict === 'counts')
    .flatMap(({ flask }) =>
      flask.incidents
        .map(({ incidentId, measured }) =>
          assessFlaskIncident(run, judgement, flask, incidentId, measured),
        )
        .filter(({ verdict }) => verdict === 'void')
        .map((assessment) => ({ flask: flask.number, assessment })),
    );
}
