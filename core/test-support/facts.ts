import type { Plain } from '#core/grammar';
import type { FactBodies, FactKind } from '#core/ledger';
import { recordKindOf } from '#core/ledger';
import type { Fact } from '#core/record';
import { stored } from './stored';

/** A fact of a kind, entered on 2 March 2026. */
export function factOf<K extends FactKind>(
  kind: K,
  recordId: string,
  body: Plain<FactBodies[K]>,
): Fact {
  const at = '2026-03-02T09:00:00.000Z';
  return stored<Fact>({
    ...{ id: 'new', recordId, recordKind: recordKindOf(kind), kind, schemaVersion: 1, body },
    ...{ authorId: 'ines', deviceId: null, clockOffsetMs: null, deviceTime: at, basedOn: null },
    ...{ sequence: null, recordedAt: null },
  });
}
