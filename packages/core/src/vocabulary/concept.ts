/** A word of a vocabulary as it goes from one program to another. */
export interface Concept {
  /** By which others of the same vocabulary name it. */
  id: string;
  name: string;
  /** What it means. */
  says: string;
  /** The group it stands in; empty for none. */
  heading: string;
  /** The concept it is narrower than. */
  broader: string | null;
}

export interface ReadVocabulary {
  concepts: Concept[];
  /** What was left out, and why. */
  messages: string[];
}

/** Larger vocabularies are no workspace's. */
export const MOST_CONCEPTS = 20_000;
