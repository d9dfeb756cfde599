import type { DecimalText } from '../../measurement';
import type { Certificate, RunState, StandardizationRun } from '../run';
import { endPointOf, incidentCorrections } from '../figures';
import { isBlank, standardizationOf, titreMl } from '../run';
import { comesToTheSame } from './issueCertificate';
import type { Result } from './judge';

/** Something that an earlier core calculated wrongly. What is a choice is a house rule instead, and runs keep theirs. */
interface Mistake {
  /** The last core that made it. */
  readonly untilCore: number;
  /** Whether a run's figures change by it. */
  readonly touches: (run: StandardizationRun) => boolean;
  readonly sentence: string;
}

const MISTAKES: readonly Mistake[] = [
  {
    untilCore: 4,
    touches: ({ references: { standard } }) => standard.kind === 'lot',
    sentence:
      'The uncertainty of a molar mass took half of each interval of atomic weights, though the conventional value does not lie in its middle; now the farther end is covered.',
  },
  {
    untilCore: 3,
    touches: ({ references: { standard, excess } }) =>
      standard.kind === 'bottle' || excess !== null,
    sentence:
      'A molarity was passed on as its label rounds it, with U / k as if that were known for sure; now its unrounded value, its u and its degrees of freedom are.',
  },
  {
    untilCore: 3,
    touches: ({ flasks }) => flasks.some((flask) => isBlank(flask) && !flask.voided),
    sentence:
      'The uncertainty of the blank was left out where the scatter of the titrations ruled; now it stays, for no scatter shows what is taken off all of them alike.',
  },
  {
    untilCore: 3,
    touches: (run) =>
      run.flasks.some((flask) => titreMl(flask) !== null && endPointOf(run, flask).by !== 'curve'),
    sentence:
      'The eye stops every titration at one shade, which may lie half the last addition off the end each time: that was counted as if it averaged out.',
  },
  {
    untilCore: 3,
    touches: ({ setUp }) =>
      setUp.rules.volumeCorrection === 'carried' &&
      Number(setUp.temperatureC) !== Number(setUp.rules.referenceTemperatureC),
    sentence:
      'A difference of temperature that is known and not corrected was counted as known for sure, and so made k smaller; now it is in u alone.',
  },
  {
    untilCore: 3,
    touches: ({ references: { standard } }) =>
      standard.kind === 'lot' && standard.balance.calibration !== null,
    sentence: 'The certificate of the balance was not used; now it is, as those of burettes are.',
  },
  {
    untilCore: 3,
    touches: (run) => run.flasks.some((flask) => incidentCorrections(run, flask).length > 0),
    sentence:
      'An incident was noted with its measured size, and changed nothing; now that size corrects the titre.',
  },
];

/** What the entries of a certified run come to today, beside what its certificate froze. */
export type Recomputed =
  | { readonly isSame: true }
  | {
      readonly isSame: false;
      readonly rounded: { readonly value: DecimalText; readonly uncertainty: DecimalText };
      readonly coverageFactor: number;
      /** How far the value has moved, in parts of the U that was certified. */
      readonly movedByU: number;
      /** What explains it, in sentences; none where nothing is known that could. */
      readonly because: readonly string[];
    };

/** Computes a certificate again. The certificate itself never changes. */
export function recompute(ofRun: RunState, certificate: Certificate, result: Result): Recomputed {
  const run = standardizationOf(ofRun);
  const { evaluation, rounded } = result;
  if (comesToTheSame(certificate, evaluation)) return { isSame: true };
  const because = MISTAKES.filter(
    ({ untilCore, touches }) => Number(certificate.coreVersion) <= untilCore && touches(run),
  ).map(({ sentence }) => sentence);
  const moved = Math.abs(evaluation.value - certificate.unrounded.molarity);
  return {
    isSame: false,
    rounded,
    coverageFactor: evaluation.coverageFactor,
    movedByU: moved / Number(certificate.expandedUncertainty),
    because,
  };
}
