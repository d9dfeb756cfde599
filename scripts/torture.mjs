// npm run torture [-- --rounds 200 --seed 417]: kills of app server, PostgreSQL and browser, a frozen database and a
// full disk while analysts work.
import { installDemands } from './lib/demands.mjs';
import { runCommand } from './lib/say.mjs';
import { option } from './lib/seeded.mjs';

await runCommand(async () => {
  await installDemands();
  const { torture } = await import('./lib/torture.mjs');
  const rounds = option('rounds', 200);
  const seed = option('seed', Date.now() % 1_000_000);
  console.log(`${rounds} rounds, seed ${seed}`);
  console.log(JSON.stringify(await torture({ rounds, seed, tell: console.log })));
});
