import { buildPrograms, buildWeb } from './lib/build.mjs';
import { main } from './lib/say.mjs';

await main(async () => {
  await buildPrograms();
  await buildWeb();
});
