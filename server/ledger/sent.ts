import { currentSchemaVersion, upcast } from '#core/ledger';
import type { Fact } from '#core/record';
import { AppError } from '../http/appError';

/**
 * What a client of an earlier version sent, in the shape of today, so that what waited through an upgrade is not refused.
 * Anything that is not such a fact stays as it came, for the schema to refuse.
 *
 * @throws AppError `other-version` for a fact of a newer program.
 */
export function inTodaysShape(sent: unknown): unknown {
  const { kind, schemaVersion } = (sent ?? {}) as { kind?: unknown; schemaVersion?: unknown };
  if (typeof kind !== 'string' || typeof schemaVersion !== 'number') return sent;
  const current = currentSchemaVersion(kind);
  if (schemaVersion === current) return sent;
  if (schemaVersion > current) {
    throw new AppError(
      'other-version',
      'This entry was made by a newer version of the program than the server runs. It waits on this device.',
    );
  }
  try {
    return upcast(sent as Fact);
  } catch {
    // A body that is none of the earlier shapes.
    return sent;
  }
}
