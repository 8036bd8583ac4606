/** SRU 1.1, 1.2 and 2.0 (OASIS searchRetrieve): searchRetrieve with MODS or Dublin Core, and a short explain. */
import type { CatalogueName, Entry } from '@pandecta/demo/catalogues';
import { escapeXml, modsOf } from '@pandecta/core/formats';
import { dateToEdtf, nameInverted } from '@pandecta/core/source';
import { CqlError, parseCql } from './cql.ts';
import { search } from './shelf.ts';

const MOST = 100;

export function answerSru(name: CatalogueName, title: string, query: URLSearchParams, days: number): string {
  const version = query.get('version') ?? (query.get('operation') ? '1.2' : '2.0');
  const two = version === '2.0';
  const ns = two ? 'http://docs.oasis-open.org/ns/search-ws/sruResponse' : 'http://www.loc.gov/zing/srw/';
  const open = (root: string): string =>
    `<?xml version="1.0" encoding="UTF-8"?>\n<${root} xmlns="${ns}"><version>${version}</version>`;
  if (query.get('operation') === 'explain' || !query.get('query'))
    return `${open('explainResponse')}<record><recordSchema>http://explain.z3950.org/dtd/2.0/</recordSchema><recordPacking>xml</recordPacking><recordData><explain xmlns="http://explain.z3950.org/dtd/2.0/"><databaseInfo><title>${escapeXml(title)}</title></databaseInfo><schemaInfo><schema name="mods"/><schema name="dc"/></schemaInfo></explain></recordData></record></explainResponse>`;
  try {
    const found = search(name, parseCql(query.get('query')!), days);
    const from = Math.max(1, Number(query.get('startRecord') ?? 1));
    const count = Math.min(MOST, Number(query.get('maximumRecords') ?? 10));
    const schema = query.get('recordSchema') ?? 'mods';
    if (!['mods', 'dc'].includes(schema)) return diagnostic(open, 66, 'Unknown schema for retrieval', schema);
    const part = found.slice(from - 1, from - 1 + count);
    const records = part
      .map(
        (e, i) =>
          `<record><recordSchema>${schema}</recordSchema>${two ? '<recordXMLEscaping>xml</recordXMLEscaping>' : '<recordPacking>xml</recordPacking>'}<recordData>${schema === 'dc' ? dc(e) : mods(e)}</recordData><recordIdentifier>${e.accession}</recordIdentifier><recordPosition>${from + i}</recordPosition></record>`,
      )
      .join('');
    const next =
      from + part.length <= found.length ? `<nextRecordPosition>${from + part.length}</nextRecordPosition>` : '';
    return `${open('searchRetrieveResponse')}<numberOfRecords>${found.length}</numberOfRecords><records>${records}</records>${next}</searchRetrieveResponse>`;
  } catch (error) {
    if (!(error instanceof CqlError)) throw error;
    return diagnostic(open, 10, 'Query syntax error', error.message);
  }
}

/** SRU diagnostics list: 10 syntax, 66 schema. */
const diagnostic = (open: (root: string) => string, number: number, says: string, details: string): string =>
  `${open('searchRetrieveResponse')}<numberOfRecords>0</numberOfRecords><diagnostics><diagnostic xmlns="http://www.loc.gov/zing/srw/diagnostic/"><uri>info:srw/diagnostic/1/${number}</uri><details>${escapeXml(details)}</details><message>${says}</message></diagnostic></diagnostics></searchRetrieveResponse>`;

const mods = (e: Entry): string =>
  modsOf(e, e.accession).replace('<mods>', '<mods xmlns="http://www.loc.gov/mods/v3" version="3.8">');

function dc({ record: r, subjects, accession }: Entry): string {
  const tag = (name: string, value: string | undefined): string =>
    value ? `<dc:${name}>${escapeXml(value)}</dc:${name}>` : '';
  return `<srw_dc:dc xmlns:srw_dc="info:srw/schema/1/dc-schema" xmlns:dc="http://purl.org/dc/elements/1.1/">${tag('title', r.title)}${(r.author ?? []).map((n) => tag('creator', nameInverted(n))).join('')}${tag('publisher', r.publisher)}${r.issued ? tag('date', dateToEdtf(r.issued)) : ''}${subjects.map((s) => tag('subject', s)).join('')}${tag('source', r['container-title'])}${tag('identifier', r.DOI && `doi:${r.DOI}`)}${tag('identifier', accession)}</srw_dc:dc>`;
}
