// npm run audit: verifies the audit log; -- --expect HASH against a hash that was noted earlier.
import { run } from './lib/run.mjs';
import { join } from 'node:path';
import { withData } from './lib/data.mjs';
import { ROOT } from './lib/place.mjs';
import { runCommand } from './lib/say.mjs';

await runCommand(() =>
  withData(async ({ name, webUrl, headsFile }) => {
    const command = join(ROOT, 'dist', 'server', 'audit.js');
    const { code, output } = await run(process.execPath, [command, ...process.argv.slice(2)], {
      env: { ...process.env, DATABASE_URL: webUrl, AUDIT_HEADS: headsFile },
    });
    console.log(`${name}: ${output.trim()}`);
    process.exitCode = code;
  }),
);
