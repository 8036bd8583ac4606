/** `npm run clipper`: the browser extension, a package for Chromium and one for Firefox, in dist/clipper. */
import { ensureNpm } from './lib/npm.mjs';
import { main, say } from './lib/say.mjs';

await main(async () => {
  await ensureNpm();
  const { buildClipper } = await import('./lib/build.mjs');
  for (const { browser, folder, archive } of await buildClipper()) say(`${browser}: ${folder}, and packed: ${archive}`);
});
