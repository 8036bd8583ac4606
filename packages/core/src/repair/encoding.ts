/**
 * UTF-8 that was read as Windows-1252 or ISO 8859-1, once or oftener: "Ã©" is "é", "â€™" is "’". A run of such characters
 * is taken back only where its bytes are UTF-8 and what they say is plausible; all else stays as it is.
 */

/** What Windows-1252 has at 0x80 to 0x9F (WHATWG Encoding Standard, index windows-1252). */
const CP1252 = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ';
const BYTE = new Map([...CP1252].map((c, i) => [c, 0x80 + i]));
for (let b = 0x80; b < 0x100; b += 1) BYTE.set(String.fromCharCode(b), b);

/** A lead byte, then one to three that follow: as characters of Windows-1252. */
const FOLLOWING = `[\\u0080-\\u00bf${[...CP1252].join('').replace(/[\]\\^-]/g, '\\$&')}]`;
const RUN = new RegExp(
  `(?:[\\u00c2-\\u00df]${FOLLOWING}|[\\u00e0-\\u00ef]${FOLLOWING}{2}|[\\u00f0-\\u00f4]${FOLLOWING}{3})+`,
  'g',
);
/** A blank that follows a lead byte was a no-break blank: "Ã " is "à". */
const BLANK = /\u00c3 (?=\p{L}|$)/gu;

const utf8 = new TextDecoder('utf-8', { fatal: true });

/** What mangled text is of: letters of Latin, Greek and Cyrillic, signs of print. Anything else is taken for chance. */
const PLAUSIBLE =
  /^[\u0080-\u024f\u0370-\u03ff\u0400-\u04ff\u1e00-\u1eff\u2000-\u2027\u202f\u2030-\u205e\u20a0-\u20bf\u2100-\u214f\u2190-\u22ff\u00a0\ufb00-\ufb06\ufeff\u02b0-\u02ff]+$/u;
/** Two characters that stand together in sound text: a capital letter at the end of a quotation, and the like. */
const SOUND = /^[\u00c2-\u00df][\u00ab\u00bb\u201c\u201d\u2018\u2019\u2013\u2014\u2026]$/;

const STEERING = /[\u0080-\u009f]/;

/** The text with what was mangled taken back; the same text where nothing was. */
export function repairEncoding(text: string): string {
  let out = text;
  // Mangled twice, it is mended twice; oftener than thrice is no text.
  for (let i = 0; i < 3; i += 1) {
    const next = once(out);
    if (next === out) break;
    out = next;
  }
  // Signs that steer printers stand in no text: what leaves some was no encoding of one.
  return STEERING.test(out) && !STEERING.test(text) ? text : out;
}

function once(text: string): string {
  if (!/[\u00c2-\u00f4]/.test(text)) return text;
  const repaired = text.replace(RUN, (run, at: number) => {
    // Within a word no quotation ends.
    const within = /^\p{L}/u.test(text.slice(at + run.length));
    if (SOUND.test(run) && !within && !mangledElsewhere(text, run, at)) return run;
    try {
      const read = utf8.decode(Uint8Array.from(run, (c) => BYTE.get(c) ?? 0));
      return PLAUSIBLE.test(read) ? read : run;
    } catch {
      return run;
    }
  });
  return repaired === text ? text : repaired.replace(BLANK, 'à');
}

/** Where one run is mangled beyond doubt, another is as well. */
const mangledElsewhere = (text: string, run: string, at: number): boolean =>
  /[\u00c3\u00e2\u00c5][\u0080-\u00bf€™œ“”žŸš‚„…†‡ˆ‰‹›•˜]/.test(text.slice(0, at) + text.slice(at + run.length));
