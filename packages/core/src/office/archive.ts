/** The files in an office document. Nothing is unpacked but what is asked for, and nothing larger than it may be. */
import { strFromU8, unzipSync } from 'fflate';

/** What a part may unpack to, in bytes. */
const MOST_PART = 100 * 1024 ** 2;

/** @throws Error when the archive is damaged, or a part is larger than it may be */
export function filesIn(bytes: Uint8Array, wanted: RegExp): Map<string, string> {
  const files = unzipSync(bytes, {
    filter: ({ name, originalSize }) => {
      if (!wanted.test(name)) return false;
      if (originalSize > MOST_PART) throw new Error(`its part ${name} is larger than any document's`);
      return true;
    },
  });
  return new Map(Object.entries(files).map(([name, content]) => [name, strFromU8(content)]));
}
