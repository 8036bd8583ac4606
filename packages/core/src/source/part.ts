/** New records made of one that is here: another like it, or a part of it. */
import type { Kind } from './kinds.ts';
import type { SourceRecord } from './record.ts';
import type { Variable } from './variables.ts';

/** What belongs to one work alone. */
const OWN: Variable[] = [
  'DOI',
  'ISBN',
  'PMID',
  'PMCID',
  'URL',
  'accessed',
  'access-until',
  'citation-key',
  'citation-label',
  'year-suffix',
  'abstract',
  'annote',
  'note',
  'call-number',
  'parallel',
];

/** The record without what belongs to that work alone: its title is to be written over. */
export function likeThis(record: SourceRecord): SourceRecord {
  const { custom: _, ...rest } = record;
  const out = { ...rest } as Record<string, unknown>;
  for (const v of OWN) delete out[v];
  return { ...(out as unknown as SourceRecord), title: `Like: ${record.title ?? 'untitled'}` };
}

/** Which kinds of part a work has, the usual one first. */
export function partsOfKind(kind: Kind): Kind[] {
  switch (kind) {
    case 'book':
    case 'classic':
    case 'report':
      return ['chapter', 'entry-encyclopedia', 'entry-dictionary', 'figure'];
    case 'collection':
    case 'manuscript':
      return ['personal_communication', 'manuscript', 'map'];
    case 'periodical':
      return ['article-journal', 'article-magazine', 'article-newspaper'];
    case 'webpage':
    case 'post-weblog':
      return ['webpage'];
    default:
      return [];
  }
}

/** What a part has from its whole: where it stands, who published it and when. */
const FROM_WHOLE: Variable[] = [
  'editor',
  'translator',
  'collection-editor',
  'publisher',
  'publisher-place',
  'issued',
  'original-date',
  'edition',
  'volume',
  'number-of-volumes',
  'collection-title',
  'collection-number',
  'ISBN',
  'ISSN',
  'archive',
  'archive_collection',
  'archive-place',
  'language',
];

/** A part of a work: its container is the whole, the whole's author that of the container. */
export function partOf(whole: SourceRecord, kind: Kind): SourceRecord {
  const out: Record<string, unknown> = { type: kind };
  for (const v of FROM_WHOLE) if (whole[v] !== undefined) out[v] = whole[v];
  const archival = whole.type === 'collection' || whole.type === 'manuscript';
  if (archival) out.archive_collection = whole.title ?? out.archive_collection;
  else if (whole.title) out['container-title'] = whole.title;
  if (!archival && whole['title-short']) out['container-title-short'] = whole['title-short'];
  if (!archival && whole.author) out['container-author'] = whole.author;
  for (const v of Object.keys(out)) if (out[v] === undefined) delete out[v];
  return { ...(out as unknown as SourceRecord), title: `Part of: ${whole.title ?? 'untitled'}` };
}
