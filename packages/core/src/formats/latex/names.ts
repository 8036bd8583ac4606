/** Names written in LaTeX, one by one: BibTeX's rules for taking a list apart and for telling particles. */
import { OTHERS as ET_AL, parseName, type Name } from '../../source/index.ts';
import { latexNames, latexToText, type Reading } from './decode.ts';
import { braced } from './macros.ts';

/** Splits at the word "and" that stands outside braces (BibTeX's rule). */
export function splitNames(raw: string): string[] {
  if (!raw.includes('{'))
    return raw
      .split(/\s+and\s+/i)
      .map((n) => n.trim())
      .filter(Boolean);
  const out: string[] = [];
  let depth = 0;
  let from = 0;
  for (let i = 0; i < raw.length; i += 1) {
    const c = raw[i];
    if (c === '\\') i += 1;
    else if (c === '{') depth += 1;
    else if (c === '}') depth -= 1;
    else if (depth === 0 && /\s/.test(c!)) {
      const m = /\s+and\s+/iy;
      m.lastIndex = i;
      if (m.test(raw)) {
        out.push(raw.slice(from, i));
        i = m.lastIndex - 1;
        from = m.lastIndex;
      }
    }
  }
  out.push(raw.slice(from));
  return out.map((n) => n.trim()).filter(Boolean);
}

/** What stands at the end of a list for those not named: "and others", "et al." */
const OTHERS =
  /^[\s{]*(?:\\(?:em|emph|it|textit|sl)\b[\s{]*)?(?:others|(?:et|and)[\s~]+al(?:\.|\\xspace)?|et[\s~]+al(?:ii|iae|ia)|u\.[\s~]*a\.)[\s}.]*$/i;
/** The same after the last name, without an "and" before it: "Okonjo, M. et al." */
const OTHERS_AFTER = /[\s,~]{1,3}\{?(?:\\emph\{|\\(?:em|it)\s+)?et[\s~]{1,3}al(?:\.|ii|iae|ia)?[\s}.]{0,4}$/i;
const TAIL = 40;

/** The names of a field. Those who are only counted as "others" become the one name "et al." at the end. */
export function readNameList(raw: string, reading: Reading): Name[] {
  const out: Name[] = [];
  let others = false;
  for (const part of splitNames(raw)) {
    if (OTHERS.test(part)) {
      others = true;
      continue;
    }
    const tail = OTHERS_AFTER.exec(part.slice(-TAIL));
    if (tail) others = true;
    const bare = tail ? part.slice(0, part.length - tail[0].length) : part;
    const name = readName(bare.replace(/^[\s,;]+/, ''), reading);
    if (name && Object.keys(name).length) out.push(name);
  }
  return others ? [...out, ET_AL] : out;
}

function readName(raw: string, reading: Reading): Name {
  if (raw[0] === '{' && braced(raw, 0)?.length === raw.length - 2)
    return literal(latexToText(raw.slice(1, -1), reading));
  return parseName(/[\\{}~$]/.test(raw) ? latexNames(raw, reading) : raw);
}

const literal = (text: string): Name => (text ? { literal: text } : {});
