/** The senses a workspace gives its marks. */

/** Names of the theme's mark colours. */
export const COLOURS = ['straw', 'mist', 'lilac', 'rose', 'sky', 'sand'] as const;
export type Colour = (typeof COLOURS)[number];

/** The keys that choose a sense. */
export const SENSE_KEYS = [1, 2, 3, 4, 5, 6, 7, 8, 9] as const;

export interface Sense {
  id: string;
  name: string;
  /** The key that chooses it, 1 to 9; null where it has none. */
  key: number | null;
  colour: Colour;
  /** What it is for, as a sentence. */
  says: string;
  /** No longer offered for new marks; those that have it keep it. */
  retired: boolean;
  /** The sense it was merged into: its marks count as marks of that one. */
  into: string | null;
}

/** The senses a new workspace begins with. */
export const FIRST_SENSES: Omit<Sense, 'id'>[] = (
  [
    ['Claim', 'straw', 'What the author asserts, in the author’s own words.'],
    ['Evidence', 'mist', 'What the assertion rests on: figures, documents, observations.'],
    ['Method', 'lilac', 'How it was found out, and with what limits.'],
    ['Doubt', 'rose', 'What is to be checked, or contradicts something else.'],
  ] as const
).map(([name, colour, says], i) => ({ name, key: i + 1, colour, says, retired: false, into: null }));

/** Those offered for new marks, in the order of their keys; those without a key come last, by name. */
export const offeredSenses = <S extends Sense>(senses: readonly S[]): S[] =>
  senses
    .filter((s) => !s.retired && !s.into)
    .sort((a, b) => (a.key ?? 10) - (b.key ?? 10) || a.name.localeCompare(b.name, 'en'));
