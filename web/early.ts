import { pageAt } from './app/pages';
import { openReads } from './offline/reads';

// Read first of all: what the browser does on its own goes on while the rest of the program is evaluated.

/** Where this device keeps what was read. */
export const earlyReads = openReads();
// Whoever waits for it hears of its failure; until then nobody has missed anything.
earlyReads.catch(() => undefined);
// The router asks for it again, and tells of a failure.
pageAt(window.location.pathname)?.[1]().catch(() => undefined);
