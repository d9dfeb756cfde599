import type { PlainDetermination } from '../../determination';
import type { Assessment } from '../../incident';
import { assessIncident } from '../../incident';
import { combineComponents } from '../../measurement';
import { buretteReading, weighingRepeatability } from '../../metrology';
import type { Flask, MeasuredIncident, NotedIncident, RunState } from '../run';
import { isBlank, referencesFor, titreMl } from '../run';
import { arrangementOf, soughtOf } from '../setUp';
import { endPointOf } from './endOfTitration';
import { deliveredIn } from './portions';
import { plainDeterminationOf } from './runDetermination';

/** Water in a flask when nobody measured it, mL: it dissolves the standard and is in no equation. */
const WATER_ML = 50;

/** On what an incident is judged. */
interface OnNumbers {
  readonly determination: PlainDetermination;
  /** As read, or as expected. */
  readonly titreMl: number;
  readonly molarityMolPerL: number;
}

/** Whether an incident of a flask matters, which way and how much. @throws Unanswerable as `assessIncident` */
export function assessOn(
  run: RunState,
  flask: Flask,
  { incidentId, measured, waterMl, volumetricFlaskMl }: Omit<NotedIncident, 'remark'>,
  { determination, titreMl: titre, molarityMolPerL }: OnNumbers,
): Assessment {
  const { burette } = run.references;
  const amount = deliveredIn(run.references, flask);
  return assessIncident(
    incidentId,
    determination,
    {
      titreMl: titre,
      titrantMolarityMolPerL: determination.titrantMolPerL ?? molarityMolPerL,
      portion: flask.portion.value.kind === 'mass' ? { massG: amount } : { aliquotMl: amount },
      buretteCapacityMl: Number(burette.capacityMl),
      dropMl: Number(burette.dropMl),
      readingUncertaintyMl: combineComponents(buretteReading(burette)),
      waterMl: waterMl === null ? WATER_ML : Number(waterMl),
      volumetricFlaskMl: volumetricFlaskMl === null ? null : Number(volumetricFlaskMl),
    },
    measured ? { [measured.what]: Number(measured.value) } : {},
  );
}

/** What an incident of measured size takes off a titre as read, or adds to it. */
export interface IncidentCorrection {
  readonly factId: string;
  readonly name: string;
  readonly correctionMl: number;
  readonly standardUncertaintyMl: number;
}

/**
 * What the incidents of a flask correct in its titre: those whose verdict is to correct and whose size was measured. What a blank
 * takes off is not taken off twice.
 */
export function incidentCorrections(run: RunState, flask: Flask): readonly IncidentCorrection[] {
  const read = titreMl(flask);
  if (flask.incidents.length === 0 || read === null) return [];
  const titre = Number(read) + endPointOf(run, flask).correctionMl;
  if (titre <= 0) return [];
  const references = referencesFor(run.references, flask);
  const numbers = {
    determination: plainDeterminationOf(references),
    titreMl: titre,
    molarityMolPerL: soughtOf(references).expected,
  };
  return flask.incidents.flatMap((noted): readonly IncidentCorrection[] => {
    const { measured, factId } = noted;
    const assessment = assessOn(run, flask, noted, numbers);
    const { incident, verdict, titreMl: size, effectOnTitre } = assessment;
    const isTakenOff = incident.putRightBy === 'blank' && hasBlank(run);
    if (!measured || !size || verdict !== 'correct' || effectOnTitre === null || isTakenOff) {
      return [];
    }
    const [least, most] = size;
    const middle = (least + most) / 2;
    const perMeasured = middle / Number(measured.value);
    return [
      {
        factId,
        name: incident.name,
        correctionMl: -effectOnTitre * middle,
        standardUncertaintyMl: Math.hypot(
          (most - least) / Math.sqrt(12),
          perMeasured * measuringUncertainty(run, measured),
        ),
      },
    ];
  });
}

/** Whether blanks were titrated that count. */
function hasBlank({ flasks }: RunState): boolean {
  return flasks.some((flask) => isBlank(flask) && !flask.voided && titreMl(flask) !== null);
}

/** Half a count either way, rectangular. */
const HALF_A_COUNT = 0.5 / Math.sqrt(3);

/** How sure the measured size of an incident is, in its own unit: as two readings of the burette, or two weighings. */
function measuringUncertainty({ references }: RunState, { what }: MeasuredIncident): number {
  switch (what) {
    case 'volumeMl':
      return Math.SQRT2 * combineComponents(buretteReading(references.burette));
    case 'massG': {
      const { measuredWith } = arrangementOf(references).portion;
      return measuredWith.type === 'balance'
        ? combineComponents(weighingRepeatability(measuredWith))
        : 0;
    }
    case 'drops':
    case 'alkalinityMmolPerL':
      return HALF_A_COUNT;
  }
}
