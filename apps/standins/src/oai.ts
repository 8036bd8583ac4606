/** OAI-PMH 2.0: a repository whose records change as its simulated days pass. */
import { dublinCoreOf, escapeXml, marcXmlOf, modsOf } from '@pandecta/core/formats';
import type { CatalogueName, Entry } from '@pandecta/demo/catalogues';
import { everyEntry } from './shelf.ts';

const SHARE = 100;
const SETS: Record<string, (e: Entry) => boolean> = {
  articles: (e) => e.record.type === 'article-journal',
  books: (e) => e.record.type === 'book' || e.record.type === 'chapter',
  law: (e) => e.record.type === 'legal_case' || e.record.type === 'legislation',
};
const WRITERS: Record<string, (e: Entry) => string> = {
  oai_dc: (e) => dublinCoreOf(e),
  marcxml: (e) => marcXmlOf(e).replace('<record>', '<record xmlns="http://www.loc.gov/MARC21/slim">'),
  mods: (e) => modsOf(e, e.accession).replace('<mods>', '<mods xmlns="http://www.loc.gov/mods/v3" version="3.8">'),
};

/** The first day, on which most records came. */
const FIRST = Date.UTC(2026, 0, 1);
const stamp = (day: number): string => new Date(FIRST + day * 86_400_000).toISOString().replace(/\.000/, '');

interface Place {
  at: number;
  set: string;
  prefix: string;
  from: string;
}

export function answerOai(
  name: CatalogueName,
  title: string,
  query: URLSearchParams,
  days: number,
  base: string,
): string {
  const verb = query.get('verb') ?? '';
  const reply = (inner: string): string =>
    `<?xml version="1.0" encoding="UTF-8"?>\n<OAI-PMH xmlns="http://www.openarchives.org/OAI/2.0/"><responseDate>${stamp(days + 1)}</responseDate><request verb="${escapeXml(verb)}">${escapeXml(base)}</request>${inner}</OAI-PMH>`;
  const error = (code: string, says: string): string => reply(`<error code="${code}">${escapeXml(says)}</error>`);
  switch (verb) {
    case 'Identify':
      return reply(
        `<Identify><repositoryName>${escapeXml(title)}</repositoryName><baseURL>${escapeXml(base)}</baseURL><protocolVersion>2.0</protocolVersion><earliestDatestamp>${stamp(0)}</earliestDatestamp><deletedRecord>no</deletedRecord><granularity>YYYY-MM-DDThh:mm:ssZ</granularity></Identify>`,
      );
    case 'ListSets':
      return reply(
        `<ListSets>${Object.keys(SETS)
          .map((s) => `<set><setSpec>${s}</setSpec><setName>${s}</setName></set>`)
          .join('')}</ListSets>`,
      );
    case 'ListRecords':
      break;
    default:
      return error('badVerb', `The verb “${verb}” is not known`);
  }
  const place = placeOf(query);
  if (!place) return error('badResumptionToken', 'The token is not of this repository');
  const { at, set, prefix, from } = place;
  const write = WRITERS[prefix];
  if (!write) return error('cannotDisseminateFormat', `There is no ${prefix} here`);
  if (set && !SETS[set]) return error('noRecordsMatch', 'There is no such set');
  const all = everyEntry(name).filter(
    (e) => e.day <= days && (!set || SETS[set]!(e)) && (!from || stamp(e.day) >= from.slice(0, 20)),
  );
  if (!all.length) return error('noRecordsMatch', 'Nothing changed since');
  const share = all.slice(at, at + SHARE);
  const records = share
    .map(
      (e) =>
        `<record><header><identifier>oai:${name}:${e.accession}</identifier><datestamp>${stamp(e.day)}</datestamp></header><metadata>${write(e)}</metadata></record>`,
    )
    .join('');
  const next = at + share.length < all.length ? tokenOf({ at: at + share.length, set, prefix, from }) : '';
  const token = next || at ? `<resumptionToken completeListSize="${all.length}">${next}</resumptionToken>` : '';
  return reply(`<ListRecords>${records}${token}</ListRecords>`);
}

const tokenOf = (place: Place): string => Buffer.from(JSON.stringify(place)).toString('base64url');

function placeOf(query: URLSearchParams): Place | undefined {
  const token = query.get('resumptionToken');
  if (!token)
    return {
      at: 0,
      set: query.get('set') ?? '',
      prefix: query.get('metadataPrefix') ?? '',
      from: query.get('from') ?? '',
    };
  try {
    return JSON.parse(Buffer.from(token, 'base64url').toString()) as Place;
  } catch {
    return undefined;
  }
}
