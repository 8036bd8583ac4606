/** Where one reference ends and the next begins, in a list as it is pasted or stands on a page. */

export interface Piece {
  text: string;
  start: number;
  end: number;
}

/** What numbers the entries of a list: "[12]", "12.", "(12)", "12)"; also a bullet. */
const MARK = /^\s*(?:\[\d{1,4}\]|\(\d{1,4}\)|\d{1,3}[.)](?=\s)|[•▪*–-](?=\s))\s*/;
/** Who a reference begins with: a family name and what goes with it, a body, a dash for the same author again. */
const BEGINS = /^\s*(?:[—–_-]{2,}|[“"‘']|\[|(?:(?:van|von|de|du|della?|la|le|den|der|ten|ter)\s+)*\p{Lu}[\p{L}'’.-]*)/u;
const ENDS = /(?:[.)\]”"’]|\d|\/\S*|https?:\/\/\S+)\s*$/;

export function splitReferences(text: string): Piece[] {
  const lines = linesOf(text);
  const filled = lines.filter((l) => l.text.trim());
  if (!filled.length) return [];
  const marked = filled.filter((l) => MARK.test(l.text)).length;
  const isMarked = marked > 1 && MARK.test(filled[0]!.text);
  const blanks = lines.some((l, i) => !l.text.trim() && lines[i - 1]?.text.trim() && lines[i + 1]?.text.trim());
  const indent = (l: Piece): number => /^\s*/.exec(l.text)![0].length;
  const least = Math.min(...filled.map(indent));
  const hangs = indent(filled[0]!) === least && filled.some((l) => indent(l) > least);
  const groups: Piece[][] = [];
  let afterBlank = true;
  for (const line of lines) {
    if (!line.text.trim()) {
      afterBlank = true;
      continue;
    }
    const last = groups.at(-1)?.at(-1);
    const begins = isMarked
      ? MARK.test(line.text)
      : blanks
        ? afterBlank
        : hangs
          ? indent(line) === least
          : !last || (BEGINS.test(line.text) && ENDS.test(last.text));
    if (begins || !last) groups.push([line]);
    else groups.at(-1)!.push(line);
    afterBlank = false;
  }
  return groups.map((group) => pieceOf(text, group[0]!.start, group.at(-1)!.end));
}

function linesOf(text: string): Piece[] {
  const out: Piece[] = [];
  for (const m of text.matchAll(/[^\r\n]*(?:\r\n|\r|\n|$)/g)) {
    const line = m[0].replace(/[\r\n]+$/, '');
    if (m.index < text.length || line) out.push({ text: line, start: m.index, end: m.index + line.length });
  }
  return out;
}

/** The entry on one line, without its number; a word parted at the end of a line is joined. */
function pieceOf(text: string, start: number, end: number): Piece {
  const whole = text.slice(start, end);
  const mark = MARK.exec(whole)?.[0].length ?? 0;
  const one = whole
    .slice(mark)
    .replace(/(\p{Ll})[-\u00AD](\s+)(?=\p{Ll})/gu, (whole, letter: string, blank: string) =>
      /[\r\n]/.test(blank) ? letter : whole,
    )
    .replace(/\s+/g, ' ')
    .trim();
  return { text: one, start: start + mark, end };
}
