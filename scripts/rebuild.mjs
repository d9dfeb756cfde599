// npm run rebuild: remakes what lists read from the facts. The application must not be running on the same data.
import { runBuilt } from './lib/app.mjs';
import { buildWhenChanged } from './lib/build.mjs';
import { startCluster } from './lib/cluster.mjs';
import { installNodePackages } from './lib/packages.mjs';
import { claimFolder, dataFolder, ROOT } from './lib/place.mjs';
import { runCommand } from './lib/say.mjs';

await runCommand(async () => {
  await installNodePackages(ROOT);
  await buildWhenChanged(ROOT);
  const external = process.env['DATABASE_URL'];
  if (external) {
    console.log(await runBuilt(ROOT, 'Rebuilding', ['rebuild'], { DATABASE_URL: external }));
    return;
  }
  claimFolder(dataFolder());
  const cluster = await startCluster(dataFolder());
  try {
    for (const name of ['demo', 'laboratory']) {
      if (!(await cluster.hasDatabase(name))) continue;
      console.log(
        `${name}: ${await runBuilt(ROOT, 'Rebuilding', ['rebuild'], { DATABASE_URL: cluster.webUrl(name) })}`,
      );
    }
  } finally {
    await cluster.stop();
  }
});
