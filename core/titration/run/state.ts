import type { Id } from '../../grammar';
import type { DecimalText } from '../../measurement';
import type { Fact, Provenance, StoredFile } from '../../record';
import type { VoidCause } from '../../wording';
import type { RunReferences, RunSetUp } from '../setUp';
import type { Certificate } from './certificate';
import type { Portion } from './portion';
import type { Report } from './report';
import type { Return, Signature } from './signature';

/** The first or the last reading of a titration. */
export type Moment = 'initial' | 'final';

/** A reading of a titration that is no refill's: of one with two ends, that at the first of them too. */
export type BuretteMoment = Moment | 'first-end';

/** Before a refill in the middle of a titration, and after it. */
export type RefillMoment = 'stop' | 'restart';

/** How the end point was met: the wanted colour, a drop beyond it, or far beyond it. */
export type EndPointGrade = 'good' | 'drop-over' | 'far-over';

/** What was measured or counted of an incident. */
export interface MeasuredIncident {
  readonly what: 'volumeMl' | 'massG' | 'drops' | 'alkalinityMmolPerL';
  readonly value: DecimalText;
}

/** What an electrode in the flask shows. */
export type ElectrodeQuantity = 'pH' | 'mV';

/** An incident as it was noted. */
export interface NotedIncident {
  readonly incidentId: string;
  /** Null where only the usual size is known. */
  readonly measured: MeasuredIncident | null;
  /** What its size hangs on beside; null where it was not said. */
  readonly waterMl: DecimalText | null;
  readonly volumetricFlaskMl: DecimalText | null;
  readonly remark: string;
}

/** What a look at the burette found not as it should be. */
export interface BuretteLook {
  readonly faults: readonly { readonly checkId: string; readonly remark: string }[];
}

/** Left for later, or to somebody who is named. */
export interface Pause {
  readonly toId: Id | null;
  readonly remark: string;
}

/** An entry as it stands, with what it was before each correction. */
export interface Entry<T> extends Provenance {
  readonly value: T;
  /** The reason given for an unlikely value. */
  readonly reason: string | null;
  /** Oldest first. `reason` is why the value was given up, `by` and `at` tell who corrected it and when. */
  readonly superseded: readonly {
    readonly value: T;
    readonly reason: string;
    readonly by: Id;
    readonly at: string;
  }[];
}

/** A reading of the burette. A carried-over reading is the same entry as the final one before it. */
export interface Reading extends Entry<DecimalText> {
  /** The flask whose final reading this was, for a carried-over initial reading. */
  readonly carriedFromFlask: number | null;
  /** Who has read the same after its author. */
  readonly confirmed: readonly Provenance[];
}

/** A place of a titration that takes one reading; refills are numbered from 1. */
export type ReadingPlace =
  { readonly at: BuretteMoment } | { readonly at: RefillMoment; readonly refill: number };

/** A place of a flask that takes one entry. */
export type Place = { readonly at: 'portion' } | ReadingPlace;

/** A refill in the middle of a titration: where it stopped, and where it went on. */
export interface Refill {
  readonly stop: Reading;
  readonly restart: Reading | null;
}

/** Where the first of two ends was met. */
interface FirstEnd {
  readonly reading: Reading;
  /** Refills of this titration before it. */
  readonly refills: number;
}

/** What an electrode showed at a reading of the burette. */
export interface ElectrodeReading extends Provenance {
  /** Refills of this titration before it. */
  readonly refill: number;
  readonly readingMl: DecimalText;
  readonly quantity: ElectrodeQuantity;
  readonly value: DecimalText;
  readonly flaskVolumeMl: DecimalText | null;
  readonly struck: (Provenance & { readonly reason: string }) | null;
}

/** One flask of a run, in the order of numbering. */
export interface Flask {
  readonly number: number;
  readonly isRough: boolean;
  /** The sample of which it holds a portion; absent in a standardization, and of a blank. */
  readonly sampleId?: Id;
  readonly portion: Entry<Portion>;
  readonly initial: Reading | null;
  readonly refills: readonly Refill[];
  /** Null where it is not met yet, and where there is one end only. */
  readonly firstEnd: FirstEnd | null;
  /** Readings before a doubtful drop, end points that were taken back among them; oldest first. */
  readonly provisional: readonly Entry<DecimalText>[];
  readonly final: Reading | null;
  /** What an electrode showed, in the order of reading; what was struck out is among it. */
  readonly electrode: readonly ElectrodeReading[];
  /** Pictures of it, oldest first. */
  readonly photographs: readonly StoredFile[];
  /** Of the flask, oldest first. */
  readonly temperatures: readonly (Provenance & { readonly temperatureC: DecimalText })[];
  /** Null when nobody said how the end point was met. */
  readonly grade: (Provenance & { readonly grade: EndPointGrade }) | null;
  /** Other values for a place that has one, entered without knowing of it; they wait to be settled. */
  readonly rivals: {
    readonly portion: readonly Entry<Portion>[];
    readonly readings: readonly {
      readonly place: ReadingPlace;
      readonly entries: readonly Entry<DecimalText>[];
    }[];
  };
  /** What happened to it, in the order of noting. */
  readonly incidents: readonly (Provenance & NotedIncident & { readonly flask: number })[];
  readonly voided: (Provenance & { readonly reason: string; readonly cause?: VoidCause }) | null;
}

/** What was issued of a run, and what became of it. */
export interface Issued {
  /** On paper and as a file; none of certificates of before documents were kept. */
  readonly documents: readonly StoredFile[];
  /** Null while it holds. */
  readonly withdrawn: (Provenance & { readonly reason: string }) | null;
}

/** A certificate as it was issued. */
export interface IssuedCertificate extends Issued {
  readonly certificate: Certificate;
}

/** A report as it was issued, for the batch or for each of its samples. */
export interface IssuedReport extends Issued {
  readonly report: Report;
}

/** A run as its facts tell it. */
export interface RunState {
  readonly id: Id;
  /** How many facts the record has, those that wait to be acknowledged included. */
  readonly version: number;
  /** How many of them the server has. */
  readonly storedVersion: number;
  readonly status: 'open' | 'certified' | 'reported' | 'abandoned';
  readonly started: Provenance;
  readonly setUp: RunSetUp;
  readonly references: RunReferences;
  readonly flasks: readonly Flask[];
  /** The highest number that a flask has, of any series; 0 before the first. */
  readonly lastFlask: number;
  /**
   * The last reading taken of the burette, and the flask it belongs to; null for one of the run before. `final` is that flask's last
   * reading, where it has one, which the next flask may carry on, of whatever series.
   */
  readonly level: {
    readonly readingMl: DecimalText;
    readonly flask: number | null;
    readonly final: Reading | null;
  } | null;
  /** First readings after a filling of the burette, in mL; each filling took the rest from the bottle. */
  readonly fillings: readonly DecimalText[];
  /** Every look at the burette, oldest first. */
  readonly buretteChecked: readonly (Provenance & BuretteLook)[];
  /** Every pause, oldest first; `resumed` is null while it lasts. */
  readonly pauses: readonly (Provenance & Pause & { readonly resumed: Provenance | null })[];
  /** Facts of the work itself: what is signed rests on so many. */
  readonly entries: number;
  /** Every signature before the one that issued the certificate, oldest first; those for an earlier draft are among them. */
  readonly signatures: readonly Signature[];
  /** Every time it was given back, oldest first. */
  readonly returns: readonly Return[];
  /** Every certificate that was issued, oldest first: a later one takes the place of one that was withdrawn. */
  readonly certificates: readonly IssuedCertificate[];
  /** The one in force. */
  readonly certificate: Certificate | null;
  /** Every report of samples that was issued, oldest first: a later one amends one that was withdrawn. */
  readonly reports: readonly IssuedReport[];
  /** The one in force. */
  readonly report: Report | null;
  readonly closed: (Provenance & { readonly reason: string | null }) | null;
  /** Observations that arrived after the run was closed: on record, in no figure. */
  readonly late: readonly Fact[];
  /** Entries whose device had a clock that cannot be right; they count. */
  readonly doubtfulTimes: readonly {
    readonly factId: Id;
    readonly by: Id;
    readonly deviceTime: string;
    readonly recordedAt: string;
  }[];
}
