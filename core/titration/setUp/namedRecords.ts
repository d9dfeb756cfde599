import type { RecordVersion } from '../../record';
import { isAnalysis } from './references';
import type { AnalysisSetUp, RunSetUp, StandardizationSetUp } from './setUp';

/** A record that a set-up names: its kind, and where the set-up names it. */
export interface NamedRecord {
  readonly field: string;
  readonly kind: 'method' | 'entry' | 'bottle' | 'lot' | 'equipment' | 'sample';
  readonly at: RecordVersion;
}

/** The records that a set-up names. */
export function namedRecords(setUp: RunSetUp): readonly NamedRecord[] {
  const { method, excess, burette, thermometer } = setUp;
  return [
    ...(method.kind === 'own'
      ? [named('method', isAnalysis(setUp) ? 'entry' : 'method', method)]
      : []),
    ...(isAnalysis(setUp) ? namedByAnalysis(setUp) : namedByStandardization(setUp)),
    ...(excess
      ? [named('excess', 'bottle', excess.bottle), named('pipette', 'equipment', excess.vessel)]
      : []),
    named('burette', 'equipment', burette),
    ...(thermometer ? [named('thermometer', 'equipment', thermometer)] : []),
  ];
}

function named(field: string, kind: NamedRecord['kind'], at: RecordVersion): NamedRecord {
  return { field, kind, at };
}

function namedByStandardization({
  bottle,
  standard,
}: StandardizationSetUp): readonly NamedRecord[] {
  return [
    named('bottle', 'bottle', bottle),
    ...(standard.kind === 'lot'
      ? [named('standard', 'lot', standard.lot), named('instrument', 'equipment', standard.balance)]
      : [
          named('standard', 'bottle', standard.bottle),
          named('instrument', 'equipment', standard.vessel),
        ]),
  ];
}

function namedByAnalysis({ titrant, samples, portioning }: AnalysisSetUp): readonly NamedRecord[] {
  const ware = samples.flatMap(({ dilutions }) =>
    dilutions.flatMap(({ pipette, flask }) => [pipette, flask]),
  );
  return [
    named('titrant', 'bottle', titrant),
    ...samples.map(({ sample }) => named('samples', 'sample', sample)),
    ...[...new Map(ware.map((one) => [one.id, one])).values()].map((one) =>
      named('dilution', 'equipment', one),
    ),
    named(
      'instrument',
      'equipment',
      portioning.kind === 'weighed' ? portioning.balance : portioning.vessel,
    ),
  ];
}
