import type { ResultUnit } from '../../chemistry';
import type { Id, PlainDate } from '../../grammar';
import type { HouseRules } from '../../laboratory';
import type { DecimalText } from '../../measurement';
import type { ControlSaid, Held, Requirement } from '../../sample';
import type { SignatureMeaning } from './signature';

/** Whether a batch has one document, or each of its samples one of its own. */
export const REPORT_FORMS = ['batch', 'each'] as const;
export type ReportForm = (typeof REPORT_FORMS)[number];

/** What two ends told of a part of a sample, in the unit of the whole. */
export interface ReportedPart {
  readonly part: string;
  readonly as: string | null;
  readonly value: DecimalText;
  readonly expandedUncertainty: DecimalText;
  readonly coverageFactor: DecimalText;
  readonly unrounded: { readonly value: number; readonly standardUncertainty: number };
}

/** What was found of a sample, frozen. */
export interface ReportedResult {
  readonly sampleId: Id;
  readonly code: string;
  readonly unit: ResultUnit;
  /** The formula as which it is stated; null where that was to be found out. */
  readonly as: string | null;
  /** The content with its U, unit and k in words, as it is stated. */
  readonly stated: string;
  /** Every part of every case that may hold; absent where there is one end. */
  readonly parts?: readonly ReportedPart[];
  readonly detection: 'quantified' | 'below-quantification' | 'below-detection';
  readonly value: DecimalText;
  readonly expandedUncertainty: DecimalText;
  readonly coverageFactor: DecimalText;
  /** Unrounded, in the same unit. */
  readonly unrounded: {
    readonly value: number;
    readonly standardUncertainty: number;
    readonly titrationUncertainty: number;
    /** Null where the laboratory has not entered its own data. */
    readonly methodUncertainty: number | null;
  };
  /** Null where nothing limits them. */
  readonly effectiveDegreesOfFreedom: number | null;
  readonly titrationsAveraged: number;
  readonly titrationsMade: number;
  /** As it was agreed before the measurement. */
  readonly requirement: Requirement;
  readonly held: Held | null;
}

/** The results of a run of samples, frozen, with everything that they rest on. */
export interface Report {
  /** The code of the first sample that has a result, and how many reports it has had. */
  readonly number: string;
  readonly form: ReportForm;
  readonly analysisId: string;
  readonly analysis: string;
  /** Of every sample that has one, in the order of the run. */
  readonly results: readonly ReportedResult[];
  /** How each control of the batch stood on its chart. */
  readonly controls: readonly ControlSaid[];
  /** Codes of samples of the run without a result. */
  readonly notFound: readonly string[];
  readonly titrant: {
    readonly bottleId: Id;
    /** The bottle with its certificate. */
    readonly described: string;
    readonly molarity: DecimalText;
    readonly expandedUncertainty: DecimalText;
    /** Null where it is known from how it was made. */
    readonly certificateNumber: string | null;
  };
  readonly endPoint: string;
  readonly temperatureC: DecimalText;
  readonly measuredWith: string;
  readonly burette: string;
  /** Who entered the readings, in the order of their first one. */
  readonly analystIds: readonly Id[];
  readonly rules: HouseRules;
  readonly deviations: readonly string[];
  /** The report of the same run that was withdrawn before. */
  readonly amends: string | null;
  readonly signatures: readonly {
    readonly means: SignatureMeaning;
    readonly by: Id;
    readonly at: string;
  }[];
  readonly isIndependent: boolean;
  readonly issuedById: Id;
  readonly issuedOn: PlainDate;
  /** Why it was issued in spite of a warning. */
  readonly reason: string | null;
  /** The version of the run that it was computed from. */
  readonly runVersion: number;
  readonly coreVersion: string;
  readonly catalogueVersion: string;
}

/** Where a report is: its page at the laboratory's address, and what the server gives out under that of its interface. */
export function reportLink(baseUrl: string, runId: Id, number: string): string {
  return `${baseUrl}/runs/${runId}/reports/${encodeURIComponent(number)}`;
}
