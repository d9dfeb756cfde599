import type { HouseRules } from '../laboratory';
import type { DecimalText } from '../measurement';
import type { Weighing } from '../metrology';
import type { FactOf } from '../record';
import type { Certificate } from './certificate';

/** A record that a run rests on, at the version that was in force. */
export interface RecordVersion {
  readonly id: string;
  readonly version: number;
}

/** What was chosen before the first flask. */
export interface RunSetUp {
  readonly methodId: string;
  readonly bottle: RecordVersion;
  readonly lot: RecordVersion;
  readonly balance: RecordVersion;
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
  'run.burette-read': {
    readonly flask: number;
    readonly moment: Moment;
    readonly readingMl: DecimalText;
    /** The fact of the final reading that this initial one is, when the burette was not touched since. */
    readonly carriedFrom: string | null;
    readonly reason: string | null;
  };
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
  'run.reading-corrected': {
    readonly corrects: string;
    readonly readingMl: DecimalText;
    readonly reason: string;
  };
  /** Of two different entries for one place, made without knowing of each other, one stands. */
  'run.conflict-settled': { readonly keeps: string; readonly reason: string };
  'run.flask-voided': { readonly flask: number; readonly reason: string };
  'run.abandoned': { readonly reason: string };
  'run.certified': { readonly certificate: Certificate };
}
export type RunFact = FactOf<RunFactBodies>;

/** What was seen at the bench and cannot be seen again: never refused because somebody else was quicker. */
export type Observation = Extract<
  RunFact,
  { kind: 'run.flask-weighed' | 'run.burette-read' | 'run.burette-checked' | 'run.incident-noted' }
>;

/** Whether a fact writes down an observation; the other facts of a run are decisions. */
export function isObservation(fact: RunFact): fact is Observation {
  return (
    fact.kind === 'run.flask-weighed' ||
    fact.kind === 'run.burette-read' ||
    fact.kind === 'run.burette-checked' ||
    fact.kind === 'run.incident-noted'
  );
}
