/** Files lie under the SHA-256 of their content, so the same file is kept once. A folder here; an object store would offer the same four calls. */
import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream, type ReadStream } from 'node:fs';
import { mkdir, open, readdir, readFile, rename, rm, stat, utimes, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { Transform } from 'node:stream';

export interface Stored {
  sha256: string;
  bytes: number;
}

export interface Storage {
  put(content: NodeJS.ReadableStream): Promise<Stored>;
  /** A path a program can read the file at. */
  path(sha256: string): string;
  read(sha256: string, range?: { start: number; end: number }): ReadStream;
  /**
   * Removes what nobody holds and came more than a day ago: of refused requests, of servers that were killed, of sources that
   * are gone.
   * @param held which of these are held
   * @param only looks at these alone
   * @returns how many files went
   */
  sweep(held: (sha256: string[]) => Promise<ReadonlySet<string>>, only?: string[]): Promise<number>;
  /** The key of 32 bytes by which what is kept in the database is sealed; made when it is first asked for. */
  secret(): Promise<Buffer>;
}

/** What came since is held soon, if it is not yet. */
const NEW_MS = 86_400_000;
/** So many are asked after at once. */
const SHARE = 1000;
const SHA256 = /^[0-9a-f]{64}$/;

export class FolderStorage implements Storage {
  constructor(private readonly folder: string) {}

  /** Writes beside, then renames: a file is there whole or not at all, and on the disk before anyone is told so. */
  async put(content: NodeJS.ReadableStream): Promise<Stored> {
    await mkdir(join(this.folder, 'coming'), { recursive: true });
    const coming = join(this.folder, 'coming', randomUUID());
    const hash = createHash('sha256');
    let bytes = 0;
    const counter = new Transform({
      transform(chunk: Buffer, _, done) {
        hash.update(chunk);
        bytes += chunk.length;
        done(null, chunk);
      },
    });
    try {
      await pipeline(content, counter, createWriteStream(coming, { mode: 0o640, flush: true }));
      const sha256 = hash.digest('hex');
      const target = this.path(sha256);
      // As though it came just now: the sweep lets it be.
      const now = new Date();
      if (!(await succeeds(utimes(target, now, now)))) {
        const folder = join(target, '..');
        await mkdir(folder, { recursive: true });
        await rename(coming, target);
        await flush(folder);
      }
      return { sha256, bytes };
    } finally {
      await rm(coming, { force: true });
    }
  }

  path(sha256: string): string {
    return join(this.folder, sha256.slice(0, 2), sha256);
  }

  read(sha256: string, range?: { start: number; end: number }): ReadStream {
    return createReadStream(this.path(sha256), range);
  }

  async sweep(held: (sha256: string[]) => Promise<ReadonlySet<string>>, only?: string[]): Promise<number> {
    let gone = 0;
    const aged = async (path: string): Promise<boolean> =>
      Date.now() - (await stat(path).catch(() => ({ mtimeMs: Infinity }))).mtimeMs > NEW_MS;
    const remove = async (path: string): Promise<void> => {
      await rm(path, { force: true });
      gone += 1;
    };
    if (!only)
      for (const coming of await namesIn(join(this.folder, 'coming'))) {
        const path = join(this.folder, 'coming', coming);
        if (await aged(path)) await remove(path);
      }
    const old: string[] = [];
    for (const sha256 of only ?? (await this.all())) if (await aged(this.path(sha256))) old.push(sha256);
    for (let i = 0; i < old.length; i += SHARE) {
      const share = old.slice(i, i + SHARE);
      const those = await held(share);
      for (const sha256 of share) {
        if (those.has(sha256)) continue;
        // Out of the way first: who brings the same file in this moment either finds it new again, or brings it anew.
        const leaving = join(this.folder, 'coming', randomUUID());
        await mkdir(join(this.folder, 'coming'), { recursive: true });
        await rename(this.path(sha256), leaving);
        if (await aged(leaving)) await remove(leaving);
        else await rename(leaving, this.path(sha256));
      }
    }
    return gone;
  }

  async secret(): Promise<Buffer> {
    const path = join(this.folder, 'secret');
    await mkdir(this.folder, { recursive: true });
    // Of several servers that ask at once the first makes it.
    await writeFile(path, randomBytes(32), { mode: 0o600, flag: 'wx' }).catch((error: NodeJS.ErrnoException) => {
      if (error.code !== 'EEXIST') throw error;
    });
    return readFile(path);
  }

  private async all(): Promise<string[]> {
    const folders = (await namesIn(this.folder)).filter((name) => name.length === 2);
    const names = await Promise.all(folders.map((folder) => namesIn(join(this.folder, folder))));
    return names.flat().filter((name) => SHA256.test(name));
  }
}

const succeeds = (work: Promise<unknown>): Promise<boolean> =>
  work.then(
    () => true,
    () => false,
  );

const namesIn = (folder: string): Promise<string[]> => readdir(folder).catch(() => []);

/** A name is on the disk when its folder is. */
async function flush(folder: string): Promise<void> {
  const handle = await open(folder);
  try {
    await handle.sync();
  } finally {
    await handle.close();
  }
}

/** Its first bytes, by which a file is known for what it is. */
export async function startOf(path: string): Promise<Uint8Array> {
  const handle = await open(path);
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(1024), 0, 1024, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await handle.close();
  }
}
