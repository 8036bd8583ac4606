/**
 * A program that reads what others made, in a process of its own with limits on processor time, memory and waiting, so that a
 * hostile file costs only itself.
 */
import { spawn } from 'node:child_process';
import type { Readable } from 'node:stream';
import { withoutNul } from '@pandecta/core/text';

const CPU_SECONDS = 300;
const MEMORY_BYTES = 2 * 1024 ** 3;
const WALL_MS = 600_000;
/** What a file says of itself is short; what is longer is left out, in UTF-16 units. */
const MOST_TEXT = 2_000_000;

export interface Run {
  out: Readable;
  done: Promise<{ code: number | null; err: string }>;
  stop(): void;
}

export function run(program: string, args: string[], env: Record<string, string> = {}): Run {
  const child = spawn(
    'prlimit',
    [`--cpu=${CPU_SECONDS}`, `--as=${MEMORY_BYTES}`, 'nice', '-n', '10', program, ...args],
    {
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { PATH: process.env.PATH, LANG: 'C.UTF-8', ...env },
    },
  );
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

export interface Told {
  code: number | null;
  err: string;
  out: string;
}

export async function textOf(program: string, args: string[], env?: Record<string, string>): Promise<Told> {
  const r = run(program, args, env);
  let out = '';
  for await (const chunk of r.out.setEncoding('utf8')) if (out.length < MOST_TEXT) out += chunk;
  return { ...(await r.done), out: withoutNul(out) };
}
