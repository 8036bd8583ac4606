/** Debian packages: found by the files they bring, installed when missing. */
import { existsSync, mkdirSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './folders.mjs';
import { run } from './processes.mjs';
import { say, Stop } from './say.mjs';

const hasPostgres = () =>
  existsSync('/usr/lib/postgresql') &&
  readdirSync('/usr/lib/postgresql').some((v) => existsSync(`/usr/lib/postgresql/${v}/bin/initdb`));

const UNPACKED = join(ROOT, 'dist/debian');
export const NGINX = join(UNPACKED, 'usr/sbin/nginx');
/** The library that gives a process another clock; undefined where it is not unpacked. */
export function fakeClock() {
  const lib = join(UNPACKED, 'usr/lib');
  const folders = existsSync(lib) ? readdirSync(lib) : [];
  return folders.map((f) => join(lib, f, 'faketime/libfaketime.so.1')).find((f) => existsSync(f));
}

export const NEEDS = {
  postgresql: { there: hasPostgres, package: 'postgresql' },
  poppler: { there: () => existsSync('/usr/bin/pdftotext'), package: 'poppler-utils' },
  prlimit: { there: () => existsSync('/usr/bin/prlimit'), package: 'util-linux' },
  styles: {
    there: () => existsSync('/usr/share/citation-style-language/styles/chicago-author-date.csl'),
    package: 'citation-style-language-styles',
  },
  locales: {
    there: () => existsSync('/usr/share/citation-style-language/locales/locales-en-US.xml'),
    package: 'citation-style-language-locales',
  },
  tesseract: { there: () => existsSync('/usr/bin/tesseract'), package: 'tesseract-ocr' },
  chromium: { there: () => existsSync('/usr/bin/chromium'), package: 'chromium' },
  pandoc: { there: () => existsSync('/usr/bin/pandoc'), package: 'pandoc' },
  bibutils: { there: () => existsSync('/usr/bin/ris2xml'), package: 'bibutils' },
  // Only its program is wanted: installed, it would serve.
  nginx: { there: () => existsSync(NGINX), package: 'nginx', unpacked: true },
  faketime: { there: () => fakeClock() !== undefined, package: 'libfaketime', unpacked: true },
  qpdf: { there: () => existsSync('/usr/bin/qpdf'), package: 'qpdf' },
};

export const TO_RUN = ['postgresql', 'poppler', 'prlimit', 'styles', 'locales', 'tesseract'];
export const TO_TEST = [...TO_RUN, 'chromium', 'pandoc', 'bibutils', 'nginx', 'qpdf', 'faketime'];

export async function ensureDebian(all) {
  const names = all.filter((n) => !NEEDS[n].unpacked);
  await install(names);
  for (const n of all.filter((n) => NEEDS[n].unpacked && !NEEDS[n].there())) await unpack(NEEDS[n].package);
}

/** Takes a package apart beside the others, without installing it. */
async function unpack(name) {
  say(`Unpacking the Debian package ${name}`);
  mkdirSync(UNPACKED, { recursive: true });
  const command = `apt-get -q download ${name} && dpkg -x ${name}_*.deb . && rm ${name}_*.deb`;
  const done = await run('sh', ['-c', `${command} || (apt-get -q update; ${command})`], { cwd: UNPACKED });
  if (done.code !== 0)
    throw new Stop(`The Debian package ${name} could not be fetched: ${done.out.trim().split('\n').at(-1)}.`);
}

async function install(names) {
  const missing = names.filter((n) => !NEEDS[n].there()).map((n) => NEEDS[n].package);
  if (!missing.length) return;
  const root = process.getuid() === 0;
  const sudo = root ? [] : ['sudo', '-n'];
  const command = (...args) => [...sudo, ...args];
  const byHand = `sudo apt-get install ${missing.join(' ')}`;
  if (!existsSync('/usr/bin/apt-get'))
    throw new Stop(
      `Pandecta needs ${missing.join(', ')}, and this is not a Debian machine; install them and start again.`,
    );
  say(`Installing Debian packages: ${missing.join(', ')}`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const exec = async (...args) => {
    const [program, ...rest] = command(...args);
    return run(program, rest, { env }).catch((error) => ({ code: 1, out: String(error) }));
  };
  const get = () => exec('apt-get', 'install', '-y', '-q', '--no-install-recommends', ...missing);
  let done = await get();
  if (done.code !== 0) {
    await exec('apt-get', 'update', '-q');
    done = await get();
  }
  if (done.code !== 0 || names.some((n) => !NEEDS[n].there())) {
    const why = done.out.trim().split('\n').at(-1);
    throw new Stop(
      `These Debian packages are missing and could not be installed: ${missing.join(', ')} (${why}). Install them with \`${byHand}\` and start again.`,
    );
  }
}
