// npm run attack [-- --requests 20000 --seed 417]: hostile requests to a throw-away copy of the demo.
import { installDemands } from './lib/demands.mjs';
import { runCommand } from './lib/say.mjs';
import { option } from './lib/seeded.mjs';

await runCommand(async () => {
  await installDemands();
  const { attack } = await import('./lib/attack.mjs');
  const requests = option('requests', 20_000);
  const seed = option('seed', Date.now() % 1_000_000);
  console.log(`${requests} requests, seed ${seed}`);
  console.log(JSON.stringify(await attack({ requests, seed, tell: console.log })));
});
