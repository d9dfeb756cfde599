import { connectAsApplication } from '../database/connection';
import { requireEnvironment } from '../environment';
import { rebuildProjections } from '../ledger/project';

/** Remakes every projection from the facts. */
const db = connectAsApplication(requireEnvironment('DATABASE_URL'));
try {
  const records = await rebuildProjections(db);
  console.log(`Projections remade from the facts of ${String(records)} records.`);
} finally {
  await db.destroy();
}
