/** Starts the server and stops it in order. Told by its environment; see config.ts. */
import { hasAccounts } from './access/store.ts';
import { buildApp } from './composition/app.ts';
import { readConfig } from './config.ts';
import { migrateUp } from './database/connect.ts';

const config = readConfig(process.env);
const { app, services, start, close } = await buildApp(config);
await migrateUp(services.database, config.migrationsFolder);
await start();
await app.listen({ host: config.host, port: config.port });
process.send?.((await hasAccounts(services.db)) ? 'ready' : 'ready, without accounts');

let closing = false;
// When whoever started it is gone, so is its database before long.
for (const end of ['SIGINT', 'SIGTERM', 'disconnect'] as const) {
  process.on(end, () => {
    if (closing) return;
    closing = true;
    void close().then(
      () => process.exit(0),
      () => process.exit(1),
    );
  });
}
