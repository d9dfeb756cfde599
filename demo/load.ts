import { connectAsApplication } from '../server/database/connection';
import { requireEnvironment } from '../server/environment';
import { loadDemo } from './play';

/** Loads the demo laboratory into an empty database, all or none. */
const db = connectAsApplication(requireEnvironment('DATABASE_URL'));
try {
  await db.transaction((tx) => loadDemo(tx, new Date()));
} finally {
  await db.destroy();
}
