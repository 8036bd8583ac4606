/** A MARC 21 record (Library of Congress, "MARC 21 Format for Bibliographic Data"): its leader and its fields. */
export interface MarcField {
  tag: string;
  /** Of a control field. */
  value?: string;
  indicators?: string;
  subfields?: [code: string, value: string][];
}

export interface MarcRecord {
  leader: string;
  fields: MarcField[];
  line: number;
}

export const isControl = (tag: string): boolean => /^00\d$/.test(tag);

/** What is asked of a record. */
export class Asked {
  constructor(readonly record: MarcRecord) {}

  fields(...tags: string[]): MarcField[] {
    return this.record.fields.filter((f) => tags.includes(f.tag));
  }
  control(tag: string): string {
    return this.fields(tag)[0]?.value ?? '';
  }
  /** The first that is filled, in the order of the tags. */
  first(tags: string | string[], codes: string): string | undefined {
    for (const tag of [tags].flat())
      for (const f of this.fields(tag)) if (subfield(f, codes)) return subfield(f, codes);
    return undefined;
  }
}

/** The values of the codes in the order they stand, with blanks between. */
export function subfield(f: MarcField | undefined, codes: string): string | undefined {
  const found = f?.subfields?.filter(([c, v]) => codes.includes(c) && v.trim()).map(([, v]) => v.trim());
  return found?.length ? found.join(' ') : undefined;
}

/** Without the marks cataloguing rules (ISBD) set at the end of an area. */
export const bare = (text: string | undefined): string | undefined =>
  text
    ?.replace(/\s*[/:;,=]+\s*$/, '')
    .replace(/(?<!\b\p{L}|\.\.|\b(?:Jr|Sr|ed|etc|Co|Inc|Ltd))\.$/u, '')
    .trim() || undefined;
