/** A page of the web as a record: what it states of itself, the surest vocabulary first. */
import type { CheerioAPI } from 'cheerio';
import type { Provenance } from '../documents/index.ts';
import type { SourceRecord } from '../source/index.ts';
import { absolute, withoutTracking } from './address.ts';
import { parsePage } from './parse.ts';
import { looksLikeReference, readReference } from '../references/index.ts';
import { aboutPage, worksOf } from './schema-org.ts';
import {
  citationTags,
  coins,
  dublinCore,
  linkRelations,
  openGraph,
  prism,
  seen,
  tagsOf,
  type Stated,
} from './stated.ts';

export interface ReadPage {
  record: SourceRecord;
  provenance: Provenance;
  subjects: string[];
  /** Other works the page lists, such as the results of a search. */
  items: SourceRecord[];
  /** Where it says its full text is. */
  pdf?: string;
  /** Where it is described for being shown elsewhere (oEmbed), where it says so. */
  oembed?: string;
}

/**
 * @param address where the page was found
 */
export function readPage(html: string, address: string): ReadPage {
  const $ = parsePage(html);
  const tags = tagsOf($);
  const listed = listedOn($, coins($));
  const about = listed.length === 1 ? listed[0] : undefined;
  const stated = [
    citationTags(tags),
    aboutPage($),
    prism(tags),
    about,
    dublinCore(tags),
    linkRelations($),
    openGraph(tags),
    seen($),
  ].filter((s): s is Stated => Boolean(s));
  const record: SourceRecord = { type: stated.find((s) => s.record.type)?.record.type ?? 'webpage' };
  const provenance: Provenance = {};
  for (const { record: part, sure } of stated)
    for (const [field, value] of Object.entries(part)) {
      if (field === 'type' || (record as Record<string, unknown>)[field] !== undefined) continue;
      (record as Record<string, unknown>)[field] = value;
      provenance[field] = { from: 'stated on the page', sure };
    }
  const url = withoutTracking(absolute(record.URL, address) ?? address);
  delete record.URL;
  if (url) {
    record.URL = url;
    provenance.URL = { from: 'stated on the page', sure: 1 };
  }
  const pdf = absolute(tags('citation_pdf_url')[0] ?? $('link[type="application/pdf"]').first().attr('href'), address);
  const oembed = absolute($('link[type="application/json+oembed"]').first().attr('href'), address);
  return {
    record,
    provenance,
    subjects: [...new Set(stated.find((s) => s.subjects.length)?.subjects ?? [])],
    items: listed.length > 1 ? listed.map((s) => ({ ...s.record }) as SourceRecord) : [],
    ...(pdf && { pdf }),
    ...(oembed && { oembed }),
  };
}

/** More are a list of a kind no one chooses from. */
const MOST_LISTED = 500;
/** Of printed references so many make a list. */
const FEWEST_PRINTED = 3;

/** The works a page lists, by the surest way it says so. */
function listedOn($: CheerioAPI, spans: Stated[]): Stated[] {
  if (spans.length > 1) return spans.slice(0, MOST_LISTED);
  const works = worksOf($);
  if (works.length) return works.slice(0, MOST_LISTED);
  const lines = $('li, .references p, [class*="bibliograph"] p, dd')
    .toArray()
    .map((el) => $(el).text().replace(/\s+/g, ' ').trim())
    .filter((text) => text.length > 30 && text.length < 1000 && looksLikeReference(text));
  const printed = [...new Set(lines)];
  if (printed.length < FEWEST_PRINTED) return spans;
  return printed.slice(0, MOST_LISTED).map((text) => ({ record: readReference(text).record, subjects: [], sure: 0.6 }));
}
