/**
 * OAI-PMH 2.0 (Open Archives Initiative Protocol for Metadata Harvesting): the records of a repository, or of a set of it,
 * share by share, and later only those that changed.
 */
import { childOf, childrenOf, eachElement, textAt } from '../formats/xml/tree.ts';
import type { OutsideEntry } from './protocol.ts';
import { schemaRecord } from './schemas.ts';

export interface Harvested {
  entries: OutsideEntry[];
  /** For the next share, where there is one. */
  token?: string;
  /** Records the repository says it has no more. */
  deleted: number;
  /** When the repository answered, by its own clock: from then on the next harvest asks. */
  at?: string;
}

/**
 * @param address the base address, with `set` and `metadataPrefix` where they are not all and `oai_dc`
 * @param from a date in UTC as the repository gave it, for what changed since
 */
export function oaiAddress(address: string, { from, token }: { from?: string; token?: string } = {}): string {
  const url = new URL(address);
  const prefix = url.searchParams.get('metadataPrefix') ?? 'oai_dc';
  const set = url.searchParams.get('set');
  for (const name of ['verb', 'set', 'metadataPrefix', 'from', 'until', 'resumptionToken'])
    url.searchParams.delete(name);
  url.searchParams.set('verb', 'ListRecords');
  // A token stands alone with the verb (section 3.5).
  if (token) url.searchParams.set('resumptionToken', token);
  else {
    url.searchParams.set('metadataPrefix', prefix);
    if (set) url.searchParams.set('set', set);
    if (from) url.searchParams.set('from', from);
  }
  return url.href;
}

/** @throws Error with what the repository said was wrong, or where it is no answer of one */
export function readOai(text: string): Harvested {
  const [whole] = eachElement(text, ['OAI-PMH']);
  if (!whole) throw new Error('it is no answer of a repository (OAI-PMH)');
  const at = textAt(whole, 'responseDate');
  const error = childOf(whole, 'error');
  // Nothing that changed is an answer, not a fault (section 3.6).
  if (error && error.attributes.code !== 'noRecordsMatch')
    throw new Error([error.attributes.code, error.text].filter(Boolean).join(': '));
  const list = childOf(whole, 'ListRecords');
  let deleted = 0;
  const entries = childrenOf(list, 'record').flatMap((record): OutsideEntry[] => {
    const header = childOf(record, 'header');
    if (header?.attributes.status === 'deleted') {
      deleted += 1;
      return [];
    }
    const found = schemaRecord(childOf(record, 'metadata'));
    const accession = textAt(header, 'identifier') ?? '';
    return found?.record.title && accession ? [{ ...found, accession }] : [];
  });
  const token = textAt(list, 'resumptionToken');
  return { entries, deleted, ...(token && { token }), ...(at && { at }) };
}
