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
  const laid = new Set<string>();
  const lay = (those: readonly VocabularyTerm[] | undefined, depth: number): void => {
    for (const term of those ?? []) {
      if (laid.has(term.id)) continue;
      laid.add(term.id);
      out.push({ term, depth });
      lay(below.get(term.id), depth + 1);
    }
  };
  lay(below.get(null), 0);
  // What two who wrote at once put under each other stands for itself.
  lay(terms, 0);
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
