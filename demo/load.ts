import { runCommand, withServices } from '../server/commands/command';
import { loadDemo } from './play';

/** Loads the demo laboratory into an empty database, all or none. */
await runCommand(() => withServices(({ db }) => db.transaction((tx) => loadDemo(tx, new Date()))));
