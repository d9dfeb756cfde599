import { fileURLToPath } from 'node:url';
import { runCommand, withServices } from '../server/commands/command';
import { Printer } from '../server/print/printer';
import { loadDemo } from './play';

/** Where the start command serves it, unless it is told otherwise. */
const BASE_URL = process.env.PUBLIC_URL ?? `http://localhost:${process.env.PORT ?? '4680'}`;

/** Loads the demo laboratory into an empty database, all or none. */
await runCommand(() =>
  withServices(async ({ db }) => {
    const printer = new Printer(fileURLToPath(new URL('./printWorker.js', import.meta.url)));
    try {
      await db.transaction((tx) => loadDemo({ db: tx, printer, baseUrl: BASE_URL }, new Date()));
    } finally {
      await printer.close();
    }
  }),
);
