/** Builds what is stale: the server with its workers, the stand-ins, the command line, the demo's loader, the page. */
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { run } from './processes.mjs';
import { ROOT } from './folders.mjs';
import { say, Stop } from './say.mjs';

export const DIST = join(ROOT, 'dist');

/** Programs that keep their packages beside them in node_modules. */
const PROGRAMS = {
  'server/main': 'apps/server/src/main.ts',
  'server/tasks': 'apps/server/src/workers/tasks.ts',
  'server/demo': 'demo/load.ts',
  'standins/main': 'apps/standins/src/main.ts',
};

/** @param more further programs, as { "folder/name": "path.ts" } */
export async function buildPrograms(more = {}) {
  const { build } = await import('esbuild');
  const shared = {
    absWorkingDir: ROOT,
    bundle: true,
    platform: 'node',
    target: 'node20.19',
    format: 'esm',
    sourcemap: true,
    outdir: DIST,
    logLevel: 'error',
    tsconfig: join(ROOT, 'tsconfig.base.json'),
  };
  const local = {
    name: 'ours-in-theirs-out',
    setup: (b) =>
      b.onResolve({ filter: /^[^./]/ }, (a) =>
        a.kind === 'entry-point' || a.path.startsWith('@pandecta/') ? undefined : { path: a.path, external: true },
      ),
  };
  await build({ ...shared, entryPoints: { ...PROGRAMS, ...more }, plugins: [local] });
  // The command line carries all it needs in a few files, so that it starts at once.
  await build({
    ...shared,
    entryPoints: { 'cli/main': 'apps/cli/src/main.ts' },
    splitting: true,
    minifySyntax: true,
    // Packages that are no modules ask for Node's own by `require`.
    banner: {
      js: "import { createRequire as requireFrom } from 'node:module'; const require = requireFrom(import.meta.url);",
    },
    chunkNames: 'cli/[name]-[hash]',
  });
}

/** One hash over the names, sizes and times of all files the page is made of. */
function stamp(folders) {
  const hash = createHash('sha256');
  const walk = (path) => {
    const s = statSync(path);
    if (s.isDirectory()) for (const name of readdirSync(path).sort()) name !== 'node_modules' && walk(join(path, name));
    else hash.update(`${path} ${s.size} ${s.mtimeMs}\n`);
  };
  for (const f of folders) if (existsSync(join(ROOT, f))) walk(join(ROOT, f));
  return hash.digest('hex');
}

/** @param kit with the page that shows what everything is made of, for the tests */
export async function buildWeb({ kit = false } = {}) {
  const mark = join(DIST, 'web.stamp');
  const wanted = `${stamp(['apps/web', 'packages/core/src', 'packages/contract/src', 'package-lock.json'])} ${kit}`;
  if (existsSync(mark) && existsSync(join(DIST, 'web/index.html')) && readFileSync(mark, 'utf8') === wanted) return;
  say('Building the page');
  const done = await run(
    process.execPath,
    [join(ROOT, 'node_modules/vite/bin/vite.js'), 'build', '--logLevel', 'warn'],
    { cwd: join(ROOT, 'apps/web'), env: { ...process.env, PANDECTA_KIT: kit ? '1' : '' } },
  );
  if (done.code !== 0) throw new Stop(`The page could not be built:\n${done.out}`);
  mkdirSync(DIST, { recursive: true });
  writeFileSync(mark, wanted);
}

/** The clipper: a folder and a zip for each browser. @returns where they are */
export async function buildClipper() {
  const { build } = await import('esbuild');
  const { ZipFile } = await import('yazl');
  const made = join(DIST, 'clipper');
  const source = join(ROOT, 'apps/clipper');
  await build({
    absWorkingDir: ROOT,
    bundle: true,
    format: 'esm',
    target: 'es2022',
    outfile: join(made, 'manifest.mjs'),
    entryPoints: ['apps/clipper/manifest.ts'],
    logLevel: 'error',
  });
  const { manifest } = await import(join(made, 'manifest.mjs'));
  const { version } = JSON.parse(readFileSync(join(source, 'package.json'), 'utf8'));
  const out = [];
  for (const browser of ['chromium', 'firefox']) {
    const folder = join(made, browser);
    mkdirSync(folder, { recursive: true });
    await build({
      absWorkingDir: ROOT,
      bundle: true,
      format: 'esm',
      target: ['chrome120', 'firefox128'],
      outdir: folder,
      entryPoints: ['background', 'popup', 'look'].map((name) => `apps/clipper/src/${name}.ts`),
      tsconfig: join(ROOT, 'tsconfig.base.json'),
      logLevel: 'error',
    });
    for (const name of readdirSync(join(source, 'static')))
      writeFileSync(join(folder, name), readFileSync(join(source, 'static', name)));
    writeFileSync(join(folder, 'manifest.json'), JSON.stringify(manifest(browser, version), null, 2));
    const archive = join(made, `pandecta-clipper-${browser}-${version}.zip`);
    const zip = new ZipFile();
    for (const name of readdirSync(folder)) zip.addFile(join(folder, name), name);
    zip.end();
    const parts = [];
    for await (const part of zip.outputStream) parts.push(part);
    writeFileSync(archive, Buffer.concat(parts));
    out.push({ browser, folder, archive });
  }
  return out;
}
