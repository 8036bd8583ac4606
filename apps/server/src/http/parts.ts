/** What comes as multipart/form-data (RFC 7578): files, kept as they come, and the fields before them. */
import type { FastifyRequest } from 'fastify';
import { MOST_FILE_BYTES, MOST_FILES } from '@pandecta/contract';
import { wholeCharacters } from '@pandecta/core/text';
import { Refusal } from '../errors.ts';
import type { Storage, Stored } from '../storage/storage.ts';
import { bytesInWords } from './problems.ts';

/** For the parser: beside each file may stand a field that says something of it, and a few for all. */
export const PART_LIMITS = {
  fileSize: MOST_FILE_BYTES,
  files: MOST_FILES,
  fields: MOST_FILES + 10,
  parts: 2 * MOST_FILES + 10,
  fieldSize: 1024 ** 2,
};

export type Arrived = { file: Stored; path: string } | { field: string; value: string };

/** A path as the browser has it; without half characters, which a cut in it may have left. */
const pathOf = (filename: string | undefined): string => wholeCharacters(filename ?? '');

/** @throws Refusal where a file is too large, or the form is broken; what was kept of it belongs to nobody and is swept away */
export async function* arriving(request: FastifyRequest, storage: Storage): AsyncGenerator<Arrived> {
  if (!request.isMultipart()) throw new Refusal('invalid', 'files come as multipart/form-data');
  try {
    for await (const part of request.parts()) {
      if (part.type === 'file') {
        const file = await storage.put(part.file);
        if (part.file.truncated) throw new Refusal('file_too_large', bytesInWords(MOST_FILE_BYTES));
        yield { file, path: pathOf(part.filename) };
      } else {
        if (part.valueTruncated) throw new Refusal('invalid', 'a field of the form is longer than 1 MB');
        yield { field: part.fieldname, value: wholeCharacters(String(part.value)) };
      }
    }
  } catch (error) {
    throw isBroken(error) ? new Refusal('invalid', 'the form with the files is broken or ends too early') : error;
  }
}

/** Of the parser's own errors only those of its limits have a status; in none of them is anything but the form to blame. */
const isBroken = (error: unknown): boolean => {
  const { message = '', code } = error as { message?: string; code?: string };
  return (
    /^(?:Unexpected end of|Malformed|Multipart: |Premature close|Unterminated)/.test(message) ||
    code === 'ERR_STREAM_PREMATURE_CLOSE'
  );
};
