import { withoutNul } from '../text/index.ts';
import { decodeMarc8, isMarc8 } from './marc/marc8.ts';

/**
 * Bytes to text. A byte order mark decides; without one, UTF-16 shows by its zero bytes, valid UTF-8 is taken for
 * UTF-8 (RFC 3629: other encodings are very unlikely to be valid by accident), and what remains is read as
 * windows-1252, whose printable characters include those of ISO 8859-1. Records of MARC say themselves what they are in.
 */
export type Encoding = 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252' | 'MARC-8';

export function decodeText(bytes: Uint8Array): { text: string; encoding: Encoding } {
  const marked = byMark(bytes) ?? byZeros(bytes);
  if (marked) return { text: withoutNul(new TextDecoder(marked).decode(bytes)), encoding: marked };
  if (isMarc8(bytes)) {
    const text = decodeMarc8(bytes);
    return { text: withoutNul(text), encoding: /[^\x00-\x7f]/.test(text) ? 'MARC-8' : 'utf-8' };
  }
  try {
    return { text: withoutNul(new TextDecoder('utf-8', { fatal: true }).decode(bytes)), encoding: 'utf-8' };
  } catch {
    return { text: withoutNul(decodeCp1252(bytes)), encoding: 'windows-1252' };
  }
}

function byMark(bytes: Uint8Array): Encoding | undefined {
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return 'utf-8';
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  return bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : undefined;
}

function byZeros(bytes: Uint8Array): Encoding | undefined {
  const sample = bytes.subarray(0, 4096);
  let even = 0;
  let odd = 0;
  sample.forEach((b, i) => {
    if (b === 0) {
      if (i % 2) odd += 1;
      else even += 1;
    }
  });
  if (odd > sample.length / 8 && odd > even * 4) return 'utf-16le';
  return even > sample.length / 8 && even > odd * 4 ? 'utf-16be' : undefined;
}

/** The characters of 0x80 to 0x9f, from the WHATWG Encoding standard, index windows-1252. */
const CP1252 = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ';

/** Written out: some versions of Node read windows-1252 as ISO 8859-1, which loses quotation marks and dashes. */
function decodeCp1252(bytes: Uint8Array): string {
  let out = '';
  for (let i = 0; i < bytes.length; i += 8192) out += String.fromCharCode(...bytes.subarray(i, i + 8192));
  return out.replace(/[\u0080-\u009f]/g, (c) => CP1252[c.charCodeAt(0) - 0x80]!);
}
