import type { Assessment, Incident } from '../incident';
import { assessIncident, featuresOf, incidentsFor } from '../incident';
import { combineComponents } from '../measurement';
import { buretteReading, netMassG } from '../metrology';
import { nominalMolPerL } from '../reagent';
import type { MeasuredIncident } from './facts';
import { forecastTitre } from './forecast';
import type { Judgement } from './judge';
import type { Flask, RunState } from './run';
import { titreMl } from './run';

/** Water in a flask when nobody measured it, mL: it dissolves the standard and is in no equation. */
const WATER_ML = 50;

/** The incidents that can happen in such a run. */
export function incidentsOf(run: RunState): readonly Incident[] {
  return incidentsFor(featuresOf(run.references.method, 'weighed'));
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
  const massG = Number(netMassG(flask.weighing.value));
  const titre = titreMl(flask);
  return assessIncident(
    incidentId,
    'standardization',
    {
      titreMl: titre === null ? forecastTitre(run, massG, null).titreMl : Number(titre),
      titrantMolarityMolPerL: judgement.averaged?.mean ?? nominalMolPerL(bottle),
      portion: { massG },
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
