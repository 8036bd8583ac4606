/** Files lie under the SHA-256 of their content, so the same file is kept once. A folder here; an object store would offer the same four calls. */
import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream, type ReadStream } from 'node:fs';
import { mkdir, open, rename, rm, stat } from 'node:fs/promises';
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
  remove(sha256: string): Promise<void>;
}

export class FolderStorage implements Storage {
  constructor(private readonly folder: string) {}

  /** Writes beside, then renames: a file is there whole or not at all. */
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
      await pipeline(content, counter, createWriteStream(coming, { mode: 0o640 }));
      const sha256 = hash.digest('hex');
      const target = this.path(sha256);
      if (
        await stat(target).then(
          () => false,
          () => true,
        )
      ) {
        await mkdir(join(target, '..'), { recursive: true });
        await rename(coming, target);
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

  remove(sha256: string): Promise<void> {
    return rm(this.path(sha256), { force: true });
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
