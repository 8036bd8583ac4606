/**
 * What of a document a bibliography is made of. References stand in its lists, under a heading that says so, and in its
 * notes; in the running text only identifiers and links are taken, as a sentence is no reference.
 */
import { findIdentifiers, once, takeApart, type DoorPart } from '../door/apart.ts';
import { looksLikeReference } from '../references/index.ts';
import type { Paragraph } from './paragraph.ts';

const HEADING =
  /^(?:\d+\.?\s*)?(?:list of )?(?:references|bibliography|works cited|literature(?: cited)?|sources|further reading|table of (?:cases|authorities|statutes|legislation)|cases|legislation|literatur(?:verzeichnis)?|quellen(?:verzeichnis)?|bibliographie|références|bibliograf[ií]a|bibliografie|riferimenti)\s*:?$/i;
/** "See", "cf." and the like before a reference in a note, and a mark that several follow. */
const LEADS = /^(?:\d+\s+)?(?:see(?: also| generally| further)?|cf\.?|compare|e\.g\.,?|vgl\.|siehe|contra|but see)\s+/i;

export interface PartsOf {
  parts: DoorPart[];
  /** How many notes hold neither a reference nor an identifier nor a link. */
  otherNotes: number;
}

export function partsOf(paragraphs: readonly Paragraph[]): PartsOf {
  const out: DoorPart[] = [];
  let otherNotes = 0;
  let listed = false;
  for (const p of paragraphs) {
    // A heading is short, ends with no mark and is set as one, or says what follows.
    const isHeading = p.as === 'heading' || HEADING.test(p.text);
    if (isHeading) {
      listed = HEADING.test(p.text);
      continue;
    }
    const found = listed && p.as !== 'note' ? takeApart(p.text) : p.as === 'note' ? inNote(p.text) : inText(p);
    const links = p.links.flatMap((l) => (/^(?:https?:|doi:)/i.test(l) ? takeApart(l) : []));
    // The words of a reference often lead where it says.
    const some = found.some((f) => f.kind === 'reference') ? found : [...found, ...links];
    if (p.as === 'note' && !some.length) otherNotes += 1;
    out.push(...some);
  }
  return { parts: once(out), otherNotes };
}

const inText = ({ text, as }: Paragraph): DoorPart[] =>
  as === 'list' && looksLikeReference(text) ? [{ kind: 'reference', text, start: 0 }] : findIdentifiers(text);

/** A note may hold several references, parted by semicolons. */
function inNote(text: string): DoorPart[] {
  const pieces = text.split(/;\s+|\n+/).map((t) => t.replace(LEADS, '').trim());
  const each = pieces.map((t): DoorPart | undefined =>
    looksLikeReference(t) ? { kind: 'reference', text: t, start: 0 } : undefined,
  );
  if (each.some(Boolean)) return each.flatMap((e, i) => (e ? [e] : findIdentifiers(pieces[i]!)));
  const whole = text.replace(LEADS, '').trim();
  return looksLikeReference(whole) ? [{ kind: 'reference', text: whole, start: 0 }] : findIdentifiers(text);
}
