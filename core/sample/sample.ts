import type { Own, ResultUnit } from '../chemistry';
import type { Id, PlainDate } from '../grammar';
import type { DecimalText } from '../measurement';
import type { Correction, Provenance, RecordHead, RecordVersion } from '../record';

/**
 * By which rule a result is held against a limit, as it was agreed before the measurement: as it stands (shared risk), inside the limit
 * by a guard band, beyond it by one, or in four steps. None states nothing.
 */
export const DECISION_RULES = [
  'none',
  'simple',
  'guarded-acceptance',
  'guarded-rejection',
  'four-way',
] as const;
export type DecisionRule = (typeof DECISION_RULES)[number];

/** What a result is held against, in the unit of the request. */
export type Requirement =
  | { readonly kind: 'none' }
  | {
      readonly kind: 'limits';
      /** Null on a side that is open. */
      readonly lower: DecimalText | null;
      readonly upper: DecimalText | null;
      readonly rule: DecisionRule;
    }
  | {
      readonly kind: 'label-claim';
      readonly claim: DecimalText;
      /** What is allowed of it, in % of the claim; null where nothing is. */
      readonly window: {
        readonly fromPercent: DecimalText;
        readonly toPercent: DecimalText;
      } | null;
    }
  | {
      readonly kind: 'accepted-value';
      readonly value: DecimalText;
      /** Its U with k = 2; null where none is stated. */
      readonly expandedUncertainty: DecimalText | null;
      /** A result may be so far off, % of the value; null where nothing is set. */
      readonly withinPercent: DecimalText | null;
    };

/** What somebody wants to know of a sample. */
export interface SampleRequest {
  readonly analysisId: string;
  readonly unit: ResultUnit;
  /** The formula as which it is stated; null where that is to be found out. */
  readonly as: string | null;
  /** What it may hold, in that unit; null where nobody knows. */
  readonly expected: DecimalText | null;
  readonly requirement: Requirement;
  /** Of what a drying leaves of it, not of the sample as received; for contents by mass. */
  readonly onDryMatter?: boolean;
  /** Of the parts that the analysis finds the one that is meant, by its id; absent for the whole. */
  readonly part?: string;
}

/** A quantity that belongs to a sample, with the half-width of a 95 % interval. */
export interface Stated {
  readonly value: DecimalText;
  readonly plusMinus: DecimalText;
}

/** A sample as it was received. */
export interface Sample {
  readonly code: string;
  readonly description: string;
  /** Where it was taken: tank 7, line 2, lot 31. */
  readonly source: string;
  readonly customer: string;
  /** Empty where it was not taken by this laboratory. */
  readonly sampledBy: string;
  readonly sampledOn: PlainDate | null;
  readonly receivedOn: PlainDate;
  readonly condition: string;
  /** mL of a liquid, g of a solid; null where nobody measured. */
  readonly amount: { readonly value: DecimalText; readonly unit: 'mL' | 'g' } | null;
  /** g/mL at the temperature of the room; for a content by mass of what is pipetted. */
  readonly density: Stated | null;
  /** Mean mass of one of what is counted, such as a tablet, g. */
  readonly unitMass: Stated | null;
  /** What a drying leaves, % of the mass; absent or null where nobody dried any. */
  readonly dryMatter?: Stated | null;
  /** A control: it is titrated again and again, and its results go on a chart. */
  readonly isControl?: boolean;
  readonly store: string;
  readonly keepUntil: PlainDate | null;
  readonly requests: readonly SampleRequest[];
  /** Analyses of the laboratory's own that it is asked for, as they were when it was written down. */
  readonly own?: Own;
}

/** An aliquot of a sample, or of its last dilution, made up to the mark. */
export interface SampleDilution {
  readonly pipette: RecordVersion;
  readonly flask: RecordVersion;
}

/** What a report stated of a sample: so much that whoever opens the sample needs no run. */
export interface ReportedContent {
  readonly runId: Id;
  readonly reportNumber: string;
  readonly analysisId: string;
  readonly unit: ResultUnit;
  /** The formula as which it is stated; null where that was to be found out. */
  readonly as: string | null;
  /** As the report states it, with its U and unit in words. */
  readonly stated: string;
  readonly reportedOn: PlainDate;
}

/** Results of a control from before. */
export interface PointsTakenOver {
  readonly analysisId: string;
  readonly unit: ResultUnit;
  readonly points: readonly { readonly on: PlainDate; readonly value: DecimalText }[];
  /** Where they stood. */
  readonly source: string;
}

export interface SampleFactBodies {
  'sample.received': Sample;
  /** What was mistyped, put right: the whole sample as it should have been written down. */
  'sample.corrected': { readonly sample: Sample; readonly reason: string };
  'sample.diluted': SampleDilution & { readonly reason: string | null };
  /** A step that was never made, or made otherwise. */
  'sample.dilution-struck': { readonly dilutionId: string; readonly reason: string };
  'sample.disposed': { readonly how: string };
  /** A label was made for it. */
  'sample.labelled': { readonly sheet: string };
  /** Earlier results of a control, from a chart that was kept on paper. */
  'sample.points-taken-over': PointsTakenOver;
  /** Made by the server, as a report is issued. */
  'sample.reported': ReportedContent;
  'sample.report-withdrawn': {
    readonly runId: Id;
    readonly reportNumber: string;
    readonly reason: string;
  };
}

/** A dilution as it stands. */
export interface DilutionState extends Provenance, SampleDilution {}

export interface SampleState extends RecordHead {
  readonly received: Provenance;
  readonly sample: Sample;
  /** In their order; each begins with what the one before made. */
  readonly dilutions: readonly DilutionState[];
  readonly struck: readonly (DilutionState & { readonly because: string })[];
  /** Oldest first. */
  readonly corrections: readonly Correction<Sample>[];
  readonly disposed: (Provenance & { readonly how: string }) | null;
  /** Of a control: its results from before. */
  readonly takenOver: readonly (Provenance & PointsTakenOver)[];
  /** Every result that was reported, oldest first. */
  readonly reported: readonly (ReportedContent & {
    /** Null while it holds. */
    readonly withdrawn: (Provenance & { readonly reason: string }) | null;
  })[];
}

/** The request for an analysis; null where nobody asked for it. */
export function requestFor(
  { requests }: Pick<Sample, 'requests'>,
  analysisId: string,
): SampleRequest | null {
  return requests.find((one) => one.analysisId === analysisId) ?? null;
}
