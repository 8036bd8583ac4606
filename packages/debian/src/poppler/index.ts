/**
 * What poppler's programs say of a PDF. Each runs in a process of its own with limits on processor time, memory and
 * waiting, so that a hostile file costs only itself.
 */
import { spawn } from 'node:child_process';
import type { Readable } from 'node:stream';
import { BboxReader, readXmp, type Embedded, type Page } from '@pandecta/core/documents';
import { withoutNul } from '@pandecta/core/text';
import { normaliseDoi } from '@pandecta/core/identifiers';

const CPU_SECONDS = 300;
const MEMORY_BYTES = 2 * 1024 ** 3;
const WALL_MS = 600_000;
/** What a file says of itself is short; what is longer is left out, in UTF-16 units. */
const MOST_TEXT = 2_000_000;

interface Run {
  out: Readable;
  done: Promise<{ code: number | null; err: string }>;
  stop(): void;
}

function run(program: string, args: string[]): Run {
  const child = spawn('prlimit', [`--cpu=${CPU_SECONDS}`, `--as=${MEMORY_BYTES}`, program, ...args], {
    stdio: ['ignore', 'pipe', 'pipe'],
    env: { PATH: process.env.PATH, LANG: 'C.UTF-8' },
  });
  let err = '';
  child.stderr.setEncoding('utf8').on('data', (d: string) => void (err = (err + d).slice(-4000)));
  const timer = setTimeout(() => child.kill('SIGKILL'), WALL_MS);
  const done = new Promise<{ code: number | null; err: string }>((resolve, reject) => {
    child.on('error', reject);
    child.on('close', (code) => {
      clearTimeout(timer);
      resolve({ code, err });
    });
  });
  return { out: child.stdout, done, stop: () => void child.kill('SIGKILL') };
}

async function textOf(program: string, args: string[]): Promise<{ code: number | null; err: string; out: string }> {
  const r = run(program, args);
  let out = '';
  for await (const chunk of r.out.setEncoding('utf8')) if (out.length < MOST_TEXT) out += chunk;
  return { ...(await r.done), out: withoutNul(out) };
}

export interface PdfInfo {
  state: 'sound' | 'encrypted' | 'damaged';
  pages: number;
  embedded: Embedded;
}

/** Page count, Info dictionary and XMP; says when the file cannot be opened. */
export async function pdfInfo(path: string): Promise<PdfInfo> {
  const [info, meta] = await Promise.all([
    textOf('pdfinfo', ['-enc', 'UTF-8', path]),
    textOf('pdfinfo', ['-meta', path]),
  ]);
  if (info.code !== 0) {
    const locked = /Incorrect password|encrypted/i.test(info.err);
    return { state: locked ? 'encrypted' : 'damaged', pages: 0, embedded: {} };
  }
  const field = (name: string): string | undefined =>
    new RegExp(`^${name}:[ \\t]+(\\S.*)$`, 'm').exec(info.out)?.[1]?.trim();
  const pages = Number(field('Pages') ?? 0);
  return { state: 'sound', pages, embedded: readEmbedded(field, meta.out) };
}

/** XMP is preferred to the Info dictionary, which it replaced (ISO 32000-2, 14.3.3). */
function readEmbedded(field: (name: string) => string | undefined, meta: string): Embedded {
  const xmp = readXmp(meta);
  const signed = field('Author');
  const authors = xmp.creators.length ? xmp.creators : signed ? [signed] : [];
  const keywords = xmp.subjects.length
    ? xmp.subjects
    : (field('Keywords')?.split(/[;,]/) ?? []).map((k) => k.trim()).filter(Boolean);
  const doi = normaliseDoi(xmp.identifiers[0] ?? field('Subject')?.match(/10\.\d{4,9}\/\S+/)?.[0] ?? '');
  const title = xmp.titles[0] ?? field('Title');
  return {
    ...(title ? { title } : {}),
    ...(authors.length ? { authors } : {}),
    ...(keywords.length ? { keywords } : {}),
    ...(doi ? { doi } : {}),
  };
}

/** The pages of a PDF with the place of every word, as they are read. */
export async function* pdfPages(path: string): AsyncGenerator<Page, void> {
  const r = run('pdftotext', ['-bbox-layout', '-enc', 'UTF-8', path, '-']);
  const reader = new BboxReader();
  try {
    for await (const chunk of r.out.setEncoding('utf8')) yield* reader.push(chunk as string);
    yield* reader.push('\n');
    await r.done;
  } finally {
    r.stop();
  }
}
