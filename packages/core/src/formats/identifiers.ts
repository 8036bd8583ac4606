/** Puts the identifiers of a record where they belong and in their normal form, whatever field people have them in. */
import { findArxivIds, findDois, plainDoi, normalisePmcid, normalisePmid } from '../identifiers/index.ts';
import type { SourceRecord } from '../source/index.ts';

const ADDRESS = /^<?(https?:\/\/\S+?)>?$/i;

/** Alters the record in place. What it cannot read stays as it stands. */
export function settleIdentifiers(record: SourceRecord): void {
  if (record.DOI !== undefined) settleDoi(record, record.DOI);
  if (record.PMID !== undefined) record.PMID = normalisePmid(record.PMID) ?? record.PMID;
  if (record.PMCID !== undefined) record.PMCID = normalisePmcid(record.PMCID) ?? record.PMCID;
  for (const field of ['medium', 'note'] as const) {
    const value = record[field]?.trim();
    if (!value || /\s/.test(value.replace(/^(?:doi|url|available (?:at|from))\s*:?\s*/i, ''))) continue;
    const doi = plainDoi(value);
    const address = ADDRESS.exec(value.replace(/^(?:url|available (?:at|from))\s*:?\s*/i, ''))?.[1];
    // The whole of the field is an identifier: that is what it is for.
    if (doi && record.DOI === undefined) {
      record.DOI = doi;
      if (!address) delete record[field];
    }
    if (address && record.URL === undefined) {
      record.URL = address;
      delete record[field];
    }
  }
  const { URL: address } = record;
  if (!address) return;
  if (record.DOI === undefined) {
    const doi = plainDoi(address);
    if (doi) record.DOI = doi;
  }
  const pmid = /nih\.gov/i.test(address) ? normalisePmid(address) : undefined;
  if (pmid) record.PMID ??= pmid;
  const pmcid = /nih\.gov|europepmc/i.test(address) ? normalisePmcid(address) : undefined;
  if (pmcid) record.PMCID ??= pmcid;
}

/** A field for a DOI holds a DOI, or an identifier of another kind, or one DOI among brackets and marks. */
function settleDoi(record: SourceRecord, value: string): void {
  const doi = plainDoi(value);
  if (doi) {
    record.DOI = doi;
    return;
  }
  const found = findDois(value);
  const pmcid = normalisePmcid(value);
  const pmid = /pmid|pubmed/i.test(value) ? normalisePmid(value) : undefined;
  const arxiv = findArxivIds(value)[0];
  const rest = value
    .toLowerCase()
    .replace(found[0]?.toLowerCase() ?? '', '')
    .replace(/doi|https?|org|pii/g, '');
  if (found.length === 1 && !/\p{L}{2}/u.test(rest)) {
    record.DOI = found[0]!;
    return;
  }
  if (pmcid) record.PMCID ??= pmcid;
  else if (pmid) record.PMID ??= pmid;
  else if (!arxiv) return;
  // Every print of arXiv bears a DOI made of its number (arXiv's own documentation, since 2022).
  if (arxiv) record.DOI = `10.48550/arxiv.${arxiv.toLowerCase()}`;
  else delete record.DOI;
}
