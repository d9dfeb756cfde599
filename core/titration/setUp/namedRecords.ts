import type { RecordVersion } from '../../record';
import type { RunSetUp } from './setUp';

/** A record that a set-up names: its kind, and where the set-up names it. */
export interface NamedRecord {
  readonly field: string;
  readonly kind: 'method' | 'bottle' | 'lot' | 'equipment';
  readonly at: RecordVersion;
}

/** The records that a set-up names. */
export function namedRecords({
  method,
  bottle,
  standard,
  excess,
  burette,
  thermometer,
}: RunSetUp): readonly NamedRecord[] {
  return [
    ...(method.kind === 'own' ? ([{ field: 'method', kind: 'method', at: method }] as const) : []),
    { field: 'bottle', kind: 'bottle', at: bottle },
    ...(standard.kind === 'lot'
      ? ([
          { field: 'standard', kind: 'lot', at: standard.lot },
          { field: 'instrument', kind: 'equipment', at: standard.balance },
        ] as const)
      : ([
          { field: 'standard', kind: 'bottle', at: standard.bottle },
          { field: 'instrument', kind: 'equipment', at: standard.vessel },
        ] as const)),
    ...(excess
      ? ([
          { field: 'excess', kind: 'bottle', at: excess.bottle },
          { field: 'pipette', kind: 'equipment', at: excess.vessel },
        ] as const)
      : []),
    { field: 'burette', kind: 'equipment', at: burette },
    ...(thermometer
      ? ([{ field: 'thermometer', kind: 'equipment', at: thermometer }] as const)
      : []),
  ];
}
