/** Terms under the broader ones they stand under, as far as those are among them. */
import type { VocabularyTerm } from '@pandecta/contract';

export interface Standing {
  term: VocabularyTerm;
  depth: number;
}

export function standing(terms: readonly VocabularyTerm[]): Standing[] {
  const here = new Set(terms.map((t) => t.id));
  const below = new Map<string | null, VocabularyTerm[]>();
  for (const t of terms) {
    const parent = t.broader && here.has(t.broader) ? t.broader : null;
    below.set(parent, [...(below.get(parent) ?? []), t]);
  }
  const out: Standing[] = [];
  const lay = (parent: string | null, depth: number): void => {
    for (const term of below.get(parent) ?? []) {
      out.push({ term, depth });
      lay(term.id, depth + 1);
    }
  };
  lay(null, 0);
  return out;
}

/** The broadest one a term stands under; itself where it stands under none. */
export function rootOf(term: VocabularyTerm, byId: ReadonlyMap<string, VocabularyTerm>): VocabularyTerm {
  let at = term;
  for (const met = new Set([at.id]); ; met.add(at.id)) {
    const above = byId.get(at.broader ?? '');
    if (!above || met.has(above.id)) return at;
    at = above;
  }
}
