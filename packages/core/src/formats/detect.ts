/** Finds the format of a file from what is in it; the name of a file is never asked. */
import { ALL_KINDS } from '../source/index.ts';
import { KIND_OF_ENTRY } from './bibtex/tables.ts';
import { separatorOf } from './table/detect.ts';

/** The formats of text that are read, each with its name and the ends its files' names have. */
export const TEXT_FORMATS = {
  ris: { name: 'RIS', ends: /\.(ris|txt)$/i },
  bibtex: { name: 'BibTeX', ends: /\.(bib|bibtex|txt)$/i },
  'csl-json': { name: 'CSL-JSON', ends: /\.(json|csljson)$/i },
  'csl-yaml': { name: 'CSL-YAML', ends: /\.(ya?ml|md)$/i },
  mods: { name: 'MODS', ends: /\.(xml|mods)$/i },
  marcxml: { name: 'MARCXML', ends: /\.(xml|marcxml|mrcx)$/i },
  marc: { name: 'MARC (ISO 2709)', ends: /\.(mrc|marc|iso|dat|mrk8?)$/i },
  medline: { name: 'MEDLINE', ends: /\.(nbib|medline|txt)$/i },
  pubmed: { name: 'PubMed XML', ends: /\.xml$/i },
  jats: { name: 'JATS', ends: /\.(xml|nxml)$/i },
  dc: { name: 'Dublin Core', ends: /\.(xml|rdf|dc)$/i },
  tei: { name: 'TEI', ends: /\.(xml|tei)$/i },
  csv: { name: 'a table (CSV)', ends: /\.(csv|tsv|tab|txt)$/i },
} as const;
export type TextFormat = keyof typeof TEXT_FORMATS;

export function isPdf(bytes: Uint8Array): boolean {
  // ISO 32000-1, 7.5.2 puts the header first; readers take it within the first 1024 bytes (annex H, note 13).
  const head = String.fromCharCode(...bytes.subarray(0, 1024));
  const at = head.indexOf('%PDF-');
  // A page of the web that tells of such a file is none.
  return at === 0 || (at > 0 && !/^\s*<(?:!doctype|html|\?xml)/i.test(head));
}

const LOOKED_AT = 200_000;
const ENTRY =
  /^[ \t\uFEFF]*@[ \t]*([A-Za-z]+)[ \t]*[{(][ \t]*\r?\n?[ \t]*([^\s,{}()"=]*[ \t]*(?:,|$)|[A-Za-z]+[ \t]*=)?/gm;
const SELF = new Set(['string', 'preamble', 'comment', 'xdata', 'set']);

/** The format of a text, or undefined when it is none of ours, however much it looks like one. */
export function detectFormat(text: string): TextFormat | undefined {
  const start = text.slice(0, LOOKED_AT);
  if (ISO2709.test(start)) return 'marc';
  if (MARKED_UP.test(start)) return XML.find(({ like }) => like.test(start))?.format;
  if (/^\s*[[{]/.test(start)) {
    if (isCslJson(start)) return 'csl-json';
  } else if (!TAGGED.some(({ tags }) => tags.test(start))) {
    if (MEDLINE.test(start)) return 'medline';
    if (/^[ \t\uFEFF]*TY {1,2}- ?\S/m.test(start)) return 'ris';
    if (/^ER {1,2}- *$/m.test(start) && /^[A-Z][A-Z0-9] {1,2}- \S/m.test(start)) return 'ris';
  }
  for (const m of start.matchAll(ENTRY)) {
    const type = m[1]!.toLowerCase();
    // A type that is none of the dialects' must at least be followed by a key and its comma.
    if (SELF.has(type) || Object.hasOwn(KIND_OF_ENTRY, type) || /,/.test(m[2] ?? '')) return 'bibtex';
  }
  if (/@\s*(article|book|misc|incollection|inproceedings|online|report|thesis)\s*[{(]\s*[^\s,{}()"=]*\s*,/i.test(start))
    return 'bibtex';
  if (CSL_YAML.test(start)) return 'csl-yaml';
  return separatorOf(start) ? 'csv' : undefined;
}

/** A list of items, or one: something in it has a type of CSL or variables of its own. */
function isCslJson(start: string): boolean {
  if (/^\s*\[\s*(?:\]|$)/.test(start)) return true;
  const type = /"type"\s*:\s*"([\w-]+)"/.exec(start)?.[1];
  if (type && (ALL_KINDS as string[]).includes(type)) return true;
  return (
    /"(?:title|container-title|issued|DOI|citation-key|author)"\s*:/.test(start) &&
    !/"(?:@context|\$schema|_id|bibjson)"\s*:/.test(start)
  );
}

/** A leader: length, status, type, level, and the places ISO 2709 fixes. */
const ISO2709 = /^[\s\uFEFF]*\d{5}[acdnp][a-z][a-z].{2}22\d{5}/;
/** A tag of more than two letters: RIS has none. */
const MEDLINE = /^(?:PMID|DCOM|FAU|STAT|JID|LID|CRDT|PHST|BTI) {0,2}- ?\S/m;
const CSL_YAML =
  /^(?:---[^\n]*\n\s{0,20})?(?:references:[ \t]{0,20}\r?\n\s{0,20})?- {1,20}["']?(?:id|type|title|DOI|author)["']?:/m;
/** Kinds of XML, the outer ones first: a record of MARC may stand in an answer of another. */
const XML: { format: TextFormat; like: RegExp }[] = [
  { format: 'pubmed', like: /<Pubmed(?:Book)?Article(?:Set)?[\s>]/ },
  { format: 'jats', like: /<article\b[^<>]*?(?:dtd-version|article-type)=|<article\b[^<>]*>\s*<front[\s>]/ },
  { format: 'mods', like: /<(?:\w+:)?mods(?:Collection)?[\s>]/ },
  { format: 'marcxml', like: /<(?:\w+:)?(?:collection|record)\b[^<>]*marc21|<(?:\w+:)?datafield\b/i },
  { format: 'tei', like: /<TEI(?:\.2)?[\s>]|<(?:\w+:)?(?:biblStruct|listBibl)[\s>]/ },
  { format: 'dc', like: /<(?:oai_)?dc:|<(?:\w+:)?(?:title|creator)\b[^<>]*purl\.org\/dc\// },
];
const MARKED_UP = /^[\s\uFEFF]*<(?:!doctype|html|\?xml|!--|[a-z_]+[:\s>])/i;

/** Formats of tagged lines that are neither RIS nor MEDLINE, each by tags that those do not have. */
const TAGGED: { name: string; tags: RegExp }[] = [
  { name: 'a tagged export with two-letter tags (FN, PT, AU, TI)', tags: /^FN \S[^\n]*\n(?:VR|PT) \S/m },
  { name: 'refer', tags: /^%[0A-Z] \S[^\n]*\r?\n%[0-9A-Z@] \S/m },
];

/** Formats a text shows by how it begins. */
const BEGINNINGS: { name: string; like: RegExp }[] = [
  { name: 'Office Open XML sources', like: /<b:Sources[\s>]/ },
  { name: 'RDF', like: /<rdf:RDF[\s>]/ },
  { name: 'an Atom or RSS feed', like: /<(?:feed|rss)[\s>]/ },
  { name: 'an HTML page', like: /^[\s\uFEFF]*<(?:!doctype html|html)|<(?:head|body)[\s>]/i },
  { name: 'XML', like: /^[\s\uFEFF]*<\?xml/i },
  { name: 'RTF', like: /^\{\\rtf/ },
  { name: 'PostScript', like: /^%!PS/ },
  { name: 'a TeX document', like: /^\s*(?:%[^\n]*\n\s*)*\\(?:documentclass|documentstyle|begin)\b/ },
  { name: 'JSON, but not of the CSL-JSON form', like: /^[\s\uFEFF]*[[{]\s*["{[\]}]/ },
];

/** Pictures whose text can be recognised, by how they begin. */
const PICTURES: { type: string; like: RegExp }[] = [
  { type: 'image/png', like: /^\x89PNG\r\n/ },
  { type: 'image/jpeg', like: /^\xff\xd8\xff/ },
  { type: 'image/tiff', like: /^(?:II\*\0|MM\0\*)/ },
  { type: 'image/webp', like: /^RIFF[^]{4}WEBP/ },
  // ISO/IEC 23008-12: a box of the file type, with a brand of still pictures coded as HEVC.
  { type: 'image/heic', like: /^[^]{4}ftyp(?:heic|heix|heim|heis|mif1)/ },
];

/** The media type of a picture of pages, by its first bytes. */
export function pictureType(bytes: Uint8Array): string | undefined {
  const head = String.fromCharCode(...bytes.subarray(0, 16));
  return PICTURES.find((p) => p.like.test(head))?.type;
}

const MAGIC: { name: string; bytes: string }[] = [
  { name: 'a picture (GIF)', bytes: 'GIF8' },
  { name: 'DjVu', bytes: 'AT&TFORM' },
  { name: 'an old Office document', bytes: '\xd0\xcf\x11\xe0' },
  { name: 'packed with gzip', bytes: '\x1f\x8b' },
];

/** The name of a format that is known but not read, as it stands in "The file is …"; undefined when nothing is known. */
export function knownAs(bytes: Uint8Array, text: string): string | undefined {
  const picture = pictureType(bytes);
  if (picture) return `a picture (${picture.slice('image/'.length).toUpperCase()})`;
  const head = String.fromCharCode(...bytes.subarray(0, 4096));
  const magic = MAGIC.find((m) => head.startsWith(m.bytes));
  if (magic) return magic.name;
  if (head.startsWith('PK\x03\x04')) return packed(head);
  const start = text.slice(0, LOOKED_AT);
  return TAGGED.find((t) => t.tags.test(start))?.name ?? BEGINNINGS.find((b) => b.like.test(start))?.name;
}

function packed(head: string): string {
  if (/mimetypeapplication\/epub/.test(head)) return 'EPUB';
  if (/mimetypeapplication\/vnd\.oasis/.test(head)) return 'an OpenDocument file';
  if (/word\//.test(head)) return 'a DOCX document';
  return 'a ZIP archive';
}
