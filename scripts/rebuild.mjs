// npm run rebuild: remakes what lists read from the facts. The application must not be running on the same data.
import { runOn, withData } from './lib/data.mjs';
import { runCommand } from './lib/say.mjs';

await runCommand(() =>
  withData(
    async (data) => {
      console.log(`${data.name}: ${await runOn(data, 'Rebuilding', ['rebuild'])}`);
    },
    { alone: true },
  ),
);
