import type { DehydratedState } from '@tanstack/react-query';
import type { DBSchema, IDBPDatabase } from 'idb';
import { openDB } from 'idb';

/** What a device keeps of what its pages have read. */
export interface ReadsSchema extends DBSchema {
  reads: { key: 'all'; value: Kept };
}

interface Kept {
  /** The build that read it: another one may understand other shapes. */
  readonly build: string;
  readonly state: DehydratedState;
}

/** Opens the place where this device keeps what was read. */
export function openReads(): Promise<IDBPDatabase<ReadsSchema>> {
  return openDB<ReadsSchema>('vine-measure-reads', 1, {
    upgrade: (fresh) => {
      fresh.createObjectStore('reads');
    },
  });
}
