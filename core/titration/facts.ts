import type { HouseRules } from '../laboratory';
import type { DecimalText } from '../measurement';
import type { Weighing } from '../metrology';
import type { FactOf, StoredFile } from '../record';
import type { Certificate } from './certificate';
import type { ElectrodeQuantity } from './curve';

/** A record that a run rests on, at the version that was in force. */
export interface RecordVersion {
  readonly id: string;
  readonly version: number;
}

/** A method that ships, or one of the laboratory's own at the version that was in force. */
export type MethodChoice =
  { readonly kind: 'catalogue'; readonly id: string } | ({ readonly kind: 'own' } & RecordVersion);

/**
 * Where the standard comes from: a lot, weighed into each flask; or a bottle of known molarity, of which an aliquot is
 * titrated, or into an aliquot of the titrant if the method says so. The vessel measures the aliquots.
 */
export type StandardChoice =
  | { readonly kind: 'lot'; readonly lot: RecordVersion; readonly balance: RecordVersion }
  | { readonly kind: 'bottle'; readonly bottle: RecordVersion; readonly vessel: RecordVersion };

/** What was chosen before the first flask. `bottle` is the one whose molarity is wanted. */
export interface RunSetUp {
  readonly method: MethodChoice;
  readonly bottle: RecordVersion;
  readonly standard: StandardChoice;
  /** For a back-titration: the bottle of known molarity of which each flask gets an excess, and its pipette. */
  readonly excess: { readonly bottle: RecordVersion; readonly vessel: RecordVersion } | null;
  readonly burette: RecordVersion;
  readonly rules: HouseRules;
  readonly temperatureC: DecimalText;
  /** Half-width of a 95 % interval. */
  readonly temperatureVariationK: DecimalText;
  /** Relative standard deviation of a single titration, when it is known from validation. */
  readonly methodRepeatabilityPercent: DecimalText | null;
  /** Why it goes on in spite of a warning, such as an overdue calibration. */
  readonly reason: string | null;
}

/** The first or the last reading of a titration. */
export type Moment = 'initial' | 'final';

/** Before a refill in the middle of a titration, and after it. */
export type RefillMoment = 'stop' | 'restart';

/** How the end point was met: the wanted colour, a drop beyond it, or far beyond it. */
export type EndPointGrade = 'good' | 'drop-over' | 'far-over';

/** What was measured or counted of an incident. */
export interface MeasuredIncident {
  readonly what: 'volumeMl' | 'massG' | 'drops';
  readonly value: DecimalText;
}

export interface RunFactBodies {
  'run.started': RunSetUp;
  'run.flask-weighed': {
    readonly flask: number;
    readonly weighing: Weighing;
    readonly reason: string | null;
  };
  'run.flask-pipetted': {
    readonly flask: number;
    readonly volumeMl: DecimalText;
    readonly reason: string | null;
  };
  /** A flask with medium and indicator, and an excess if there is one, but nothing of what is to be found. */
  'run.blank-made': { readonly flask: number };
  'run.burette-read': {
    readonly flask: number;
    readonly moment: Moment;
    readonly readingMl: DecimalText;
    /** The fact of the final reading that this initial one is, when the burette was not touched since. */
    readonly carriedFrom: string | null;
    readonly reason: string | null;
  };
  'run.burette-refilled': {
    readonly flask: number;
    /** Which refill of this titration, from 1. */
    readonly refill: number;
    readonly moment: RefillMoment;
    readonly readingMl: DecimalText;
    readonly reason: string | null;
  };
  /** Read before a doubtful drop: should the next one overshoot, the end point lies after this. */
  'run.provisional-read': { readonly flask: number; readonly readingMl: DecimalText };
  /**
   * What an electrode in the flask showed at a reading of the burette, after so many refills of this titration. `flaskVolumeMl`
   * is what was in the flask at the start, water included, where it is known.
   */
  'run.electrode-read': {
    readonly flask: number;
    readonly refill: number;
    readonly readingMl: DecimalText;
    readonly quantity: ElectrodeQuantity;
    readonly value: DecimalText;
    readonly flaskVolumeMl: DecimalText | null;
  };
  /** A point of the curve that does not count. */
  'run.electrode-reading-struck': { readonly strikes: string; readonly reason: string };
  /** Of the flask, for a titration that must be hot. */
  'run.temperature-taken': {
    readonly flask: number;
    readonly temperatureC: DecimalText;
    readonly reason: string | null;
  };
  /** A finished flask as the shade to match; the picture is kept beside the facts. */
  'run.flask-photographed': { readonly flask: number } & StoredFile;
  /** A second person has read the same. */
  'run.reading-confirmed': { readonly confirms: string };
  'run.end-point-graded': { readonly flask: number; readonly grade: EndPointGrade };
  /** It was not the end point after all; its reading is kept as a provisional one. */
  'run.end-point-taken-back': { readonly flask: number; readonly reason: string };
  /** The burette was looked over before a reading; faults are what was not as it should be. */
  'run.burette-checked': {
    readonly faults: readonly { readonly checkId: string; readonly remark: string }[];
  };
  /** Something that happened to a flask; asked about, judged, and kept with what was measured of it. */
  'run.incident-noted': {
    readonly flask: number;
    readonly incidentId: string;
    /** Null where only the usual size is known. */
    readonly measured: MeasuredIncident | null;
    readonly remark: string;
  };
  'run.weighing-corrected': {
    readonly corrects: string;
    readonly weighing: Weighing;
    readonly reason: string;
  };
  'run.volume-corrected': {
    readonly corrects: string;
    readonly volumeMl: DecimalText;
    readonly reason: string;
  };
  'run.reading-corrected': {
    readonly corrects: string;
    readonly readingMl: DecimalText;
    readonly reason: string;
  };
  /** Of two different entries for one place, made without knowing of each other, one stands. */
  'run.conflict-settled': { readonly keeps: string; readonly reason: string };
  /** Left for later, or to somebody who is named. */
  'run.paused': { readonly toId: string | null; readonly remark: string };
  'run.resumed': { readonly remark: string };
  'run.flask-voided': { readonly flask: number; readonly reason: string };
  'run.abandoned': { readonly reason: string };
  'run.certified': { readonly certificate: Certificate };
}
export type RunFact = FactOf<RunFactBodies>;

/** The kinds that write down what was seen at the bench; the other facts of a run are decisions. */
const OBSERVATION_KINDS = [
  'run.flask-weighed',
  'run.flask-pipetted',
  'run.blank-made',
  'run.burette-read',
  'run.burette-refilled',
  'run.provisional-read',
  'run.electrode-read',
  'run.temperature-taken',
  'run.reading-confirmed',
  'run.end-point-graded',
  'run.burette-checked',
  'run.incident-noted',
] as const satisfies readonly RunFact['kind'][];

/** What was seen at the bench and cannot be seen again: never refused because somebody else was quicker. */
export type Observation = Extract<RunFact, { kind: (typeof OBSERVATION_KINDS)[number] }>;

/** Whether a fact writes down an observation. */
export function isObservation(fact: RunFact): fact is Observation {
  return OBSERVATION_KINDS.some((kind) => kind === fact.kind);
}
