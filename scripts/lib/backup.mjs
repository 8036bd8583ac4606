/**
 * Backup and restore. A backup is a folder: `database.dump` (pg_dump's own format), `files/` as they lie in the data, and
 * `backup.json` that says what it is. Made anew into the same folder, it copies only files that are not there yet.
 */
import { createHash } from 'node:crypto';
import { createReadStream, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { copyFile, rename } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { run } from './processes.mjs';
import { Stop } from './say.mjs';

const FORM = 1;
const DUMP = 'database.dump';
const SAYS = 'backup.json';

/** Names of files are the SHA-256 of their content, in folders of their first two digits. */
const SHA256 = /^[0-9a-f]{64}$/;
const inFolders = (folder) =>
  (existsSync(folder) ? readdirSync(folder) : [])
    .filter((name) => name.length === 2)
    .flatMap((name) => readdirSync(join(folder, name)).filter((sha256) => SHA256.test(sha256)));
const pathOf = (folder, sha256) => join(folder, sha256.slice(0, 2), sha256);

async function copy(sha256, from, to) {
  const target = pathOf(to, sha256);
  mkdirSync(join(target, '..'), { recursive: true });
  const coming = `${target}.coming`;
  await copyFile(pathOf(from, sha256), coming);
  await rename(coming, target);
}

/** Copies what is there and not yet here; a file that goes meanwhile belonged to nobody. */
async function copyNew(from, to) {
  const here = new Set(inFolders(to));
  for (const sha256 of inFolders(from))
    if (!here.has(sha256))
      await copy(sha256, from, to).catch((error) => {
        if (error.code !== 'ENOENT') throw error;
      });
}

async function tool(bin, name, args, url) {
  const { password, ...rest } = partsOf(url);
  const done = await run(
    join(bin, name),
    [...args, '-h', rest.host, '-p', rest.port, '-U', rest.user, '-d', rest.database],
    {
      env: { PATH: process.env.PATH, LANG: 'C.UTF-8', PGPASSWORD: password },
    },
  );
  if (done.code !== 0) throw new Stop(`${name} did not succeed: ${done.out.trim().split('\n').at(-1)}.`);
  return done.out;
}

const TABLES = `select count(*) from pg_tables where schemaname = 'public'`;

function partsOf(url) {
  const u = new URL(url);
  return {
    host: u.hostname,
    port: u.port || '5432',
    user: decodeURIComponent(u.username),
    password: decodeURIComponent(u.password),
    database: u.pathname.slice(1),
  };
}

/**
 * Consistent while Pandecta runs: files are on the disk before the database names them, are never altered, and stay for a
 * day after nobody names them. So those that are there before the database is read, and those that came while it was, are
 * all it can name.
 * @param from where the database is, and the data folder
 * @param bin where PostgreSQL's programs are
 * @returns {Promise<{ files: number }>}
 */
export async function backUp({ url, data, bin }, to, now = new Date()) {
  const files = join(to, 'files');
  mkdirSync(files, { recursive: true });
  if (readdirSync(to).some((name) => !['files', DUMP, SAYS, `${DUMP}.coming`].includes(name)))
    throw new Stop(`${to} holds other things than a backup; name a folder of its own.`);
  const source = join(data, 'files');
  await copyNew(source, files);
  const dump = join(to, `${DUMP}.coming`);
  await tool(bin, 'pg_dump', ['-Fc', '--no-owner', '--no-acl', '-f', dump], url);
  await copyNew(source, files);
  renameSync(dump, join(to, DUMP));
  const count = inFolders(files).length;
  writeFileSync(join(to, SAYS), `${JSON.stringify({ form: FORM, made: now.toISOString(), files: count }, null, 2)}\n`);
  return { files: count };
}

/** What a backup says of itself. @throws Stop where there is none */
export function readBackup(from) {
  const says = join(from, SAYS);
  if (!existsSync(says)) throw new Stop(`There is no backup in ${from}: ${SAYS} is missing.`);
  const read = JSON.parse(readFileSync(says, 'utf8'));
  if (read.form !== FORM)
    throw new Stop(`The backup in ${from} is of another form (${read.form}); use the Pandecta that made it.`);
  return read;
}

/**
 * Into an empty database and a data folder without files. Every file is read and compared with its name, before anything is
 * written.
 */
export async function restore(from, { url, data, bin }) {
  const { files } = readBackup(from);
  const source = join(from, 'files');
  const names = inFolders(source);
  if (names.length < files)
    throw new Stop(`The backup in ${from} is not whole: ${files - names.length} of its ${files} files are missing.`);
  for (const sha256 of names) {
    const hash = createHash('sha256');
    await pipeline(createReadStream(pathOf(source, sha256)), hash);
    if (hash.digest('hex') !== sha256)
      throw new Stop(`The backup in ${from} is damaged: ${pathOf('files', sha256)} is not what it was.`);
  }
  const target = join(data, 'files');
  if (inFolders(target).length || (await tool(bin, 'psql', ['-Atc', TABLES], url)).trim() !== '0')
    throw new Stop(`${data} holds a library already; name an empty folder with PANDECTA_HOME.`);
  await tool(
    bin,
    'pg_restore',
    ['--no-owner', '--no-acl', '--exit-on-error', '--single-transaction', join(from, DUMP)],
    url,
  );
  await copyNew(source, target);
  // What was restored is no first start: the demo is not loaded into it.
  writeFileSync(join(data, 'demo.loaded'), new Date().toISOString());
  return { files: names.length };
}
