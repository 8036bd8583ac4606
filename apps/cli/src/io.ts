import { readFile } from 'node:fs/promises';
import { stdin } from 'node:process';

export interface Io {
  out(text: string): void;
  err(text: string): void;
}

/** The command was given wrongly: exit code 2. */
export class Usage extends Error {}

/** The bytes of a file, or of standard input for "-" or nothing. */
export async function readInput(positionals: string[]): Promise<{ name: string; bytes: Uint8Array }> {
  if (positionals.length > 1) throw new Usage(`One file at a time; “${positionals[1]}” is one too many`);
  const [name] = positionals;
  if (name && name !== '-') {
    const bytes = await readFile(name).catch((error: NodeJS.ErrnoException) => {
      throw new Error(
        error.code === 'ENOENT' ? `There is no file ${name}` : `${name} cannot be read: ${error.message}`,
      );
    });
    return { name, bytes };
  }
  const chunks: Buffer[] = [];
  for await (const chunk of stdin) chunks.push(chunk as Buffer);
  return { name: 'standard input', bytes: Buffer.concat(chunks) };
}
