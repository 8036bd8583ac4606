/**
 * Each file of tests has a Pandecta of its own: a server on a copy of the database with the demo in it. So files run side
 * by side, in any order, and none counts on what another left. With PANDECTA_URL all of them use the one running there.
 */
import { test as base } from '@playwright/test';
import pg from 'pg';
import { freePort } from '../scripts/lib/ports.mjs';
import { serve } from '../scripts/lib/serve.mjs';

export { expect, type Browser, type Locator, type Page } from '@playwright/test';

interface World {
  file: string;
  url: string;
  end(): Promise<void>;
}
let world: World | undefined;

async function worldOf(file: string): Promise<World> {
  if (world?.file === file) return world;
  await world?.end();
  const name = `e2e_${process.pid}_${Date.now()}`;
  const { PANDECTA_TEST_DATABASE: admin, PANDECTA_TEST_DEMO: demo, PANDECTA_TEST_FOLDER: folder } = process.env;
  if (!admin || !demo || !folder) throw new Error('run the tests with `npm test`, or set PANDECTA_URL');
  const client = new pg.Client({ connectionString: admin });
  await client.connect();
  await client.query(`create database ${name} template ${demo}`);
  const databaseUrl = new URL(admin);
  databaseUrl.pathname = `/${name}`;
  const port = await freePort();
  // Files are named by their hash: the copies share one folder of them.
  const running = await serve({ databaseUrl: databaseUrl.href, folder, port, demo: true, quiet: true });
  world = {
    file,
    url: `http://127.0.0.1:${port}`,
    end: async () => {
      await running.stop();
      await client.query(`drop database ${name} with (force)`);
      await client.end();
    },
  };
  return world;
}

export const test = base.extend<object, { ending: void }>({
  baseURL: async ({ baseURL: _ }, use, { file }) => use(process.env.PANDECTA_URL ?? (await worldOf(file)).url),
  ending: [
    // eslint-disable-next-line no-empty-pattern -- the first parameter names the fixtures this one needs
    async ({}, use) => {
      await use();
      await world?.end();
      world = undefined;
    },
    { scope: 'worker', auto: true },
  ],
});
