/** The names of a printed reference: "Vance S, Ito R.", "Vance, Solveig, and Ren Ito", "S. Vance & R. Ito". */
import { isBody, OTHERS, parseName, type Name } from '../source/index.ts';

/** "R. M.", "RM", "R M": a short name such as "Lu" is none. */
const INITIALS = /^(?:(?:\p{Lu}\p{Ll}?\.[\s-]?){1,4}|\p{Lu}{1,3}|(?:\p{Lu}\s){1,3}\p{Lu})$/u;
/** Initials, and a particle that is written great: "S. Van Egmond". */
const GREAT_PARTICLE =
  /^((?:\p{Lu}\.[\s-]?)+)\s*((?:Van|Von|De|Di|Du|Della|La|Le|Ten|Ter)(?:\s(?:den|der|de|la))?\s\p{Lu}[\p{L}'’-]+)$/u;
const GLUED = /^(.+?)\s+(\p{Lu}{1,3})$/u;

/** Reads a list of names in whichever order and with whichever separators it is printed. */
export function readNames(text: string): Name[] {
  let t = text
    .replace(/\s+/g, ' ')
    .replace(/[\s,;:]+$/, '')
    .replace(/^by\s+/i, '')
    .trim();
  if (!t) return [];
  let others = false;
  t = t.replace(/,?\s*(?:\bet\s+al\.?|\band\s+others|\bu\.\s?a\.|…|\.\.\.)\s*$/i, () => ((others = true), ''));
  const names = split(t).map(readOne);
  return others ? [...names, OTHERS] : names;
}

function readOne(text: string): Name {
  const t = text.trim().replace(/^(?:&|and|und|et|y)\s+/i, '');
  if (isBody(t) && !/,/.test(t)) return { literal: t };
  const glued = GLUED.exec(t.replace(/\.$/, ''));
  if (glued && !/[,.]./.test(t)) return parseName(`${glued[1]}, ${[...glued[2]!].join('. ')}.`);
  const great = GREAT_PARTICLE.exec(t);
  return great ? { family: great[2]!, given: great[1]!.trim() } : parseName(t);
}

function split(text: string): string[] {
  const last = /\s*(?:,\s*)?(?:&|\band\b|\bund\b|\bet\b)\s+/i;
  if (/;/.test(text)) return text.split(/\s*;\s*(?:(?:&|and)\s+)?/i).flatMap((t) => (t ? [t] : []));
  const groups = text.split(last).filter(Boolean);
  return groups.flatMap((group, i) => splitCommas(group, i, groups.length));
}

/** "Vance, S., Ito, R." has pairs; "Vance S, Ito R" and "Solveig Vance, Ren Ito" have one name between commas. */
function splitCommas(group: string, index: number, of: number): string[] {
  const parts = group.split(/\s*,\s*/).filter(Boolean);
  if (parts.length === 1) return parts;
  const initials = parts.map((p) => INITIALS.test(p) || /^(?:jr|sr|ii|iii)\.?$/i.test(p));
  if (initials.some((x) => x)) {
    const out: string[] = [];
    parts.forEach((p, i) => {
      if (initials[i] && out.length) out[out.length - 1] += `, ${p}`;
      else out.push(p);
    });
    return out;
  }
  const single = (p: string): boolean => !/\s/.test(p.replace(/^(?:van|von|de|der|den|du|la|le)\s+/gi, ''));
  // "Vance, Solveig" leads a list whose others stand as they are spoken.
  if (index === 0 && single(parts[0]!) && parts[1] && (parts.length === 2 || !single(parts[2]!)))
    return [`${parts[0]}, ${parts[1]}`, ...parts.slice(2)];
  if (parts.length % 2 === 0 && parts.every((p, i) => i % 2 === 1 || single(p)) && of === 1)
    return parts.flatMap((p, i) => (i % 2 ? [] : [`${p}, ${parts[i + 1]}`]));
  return parts;
}
