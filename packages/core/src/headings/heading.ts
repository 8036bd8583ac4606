/** What a heading is. */
export const HEADING_KINDS = ['person', 'body', 'place', 'event', 'theme'] as const;
export type HeadingKind = (typeof HEADING_KINDS)[number];

export const HEADING_NAMES: Record<HeadingKind, { one: string; many: string }> = {
  person: { one: 'Person', many: 'People' },
  body: { one: 'Body', many: 'Bodies' },
  place: { one: 'Place', many: 'Places' },
  event: { one: 'Event', many: 'Events' },
  theme: { one: 'Theme', many: 'Themes' },
};

export interface Heading {
  /** People by their family name first: “Okonjo, Elias”. */
  name: string;
  kind: HeadingKind;
  /** Other names of the same. */
  others: string[];
  /** When it lived, or was: as people write it, or in EDTF; empty where nothing is said. */
  dates: string;
  /** Where it is, or was; empty where nothing is said. */
  place: string;
  /** A line that tells it from others. */
  says: string;
  /** The broader heading. */
  parent: string | null;
  /** The one it was merged into. */
  into: string | null;
  /** Of a person, who is known by it for certain; empty where there is none. */
  orcid: string;
}

/** People and bodies stand in records too: as authors, editors, recipients, courts. */
export const standsInRecords = (kind: HeadingKind): boolean => kind === 'person' || kind === 'body';
