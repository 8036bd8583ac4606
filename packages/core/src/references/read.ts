/** One printed reference, in whatever usual style, as a record, with the stretch of the text each field was read from. */
import { findDois, normaliseIsbn } from '../identifiers/index.ts';
import { monthOf, parseDate, type SourceRecord, type TextVariable } from '../source/index.ts';
import { readLaw } from './law.ts';
import { readNames } from './names.ts';
import { Slate, type Span } from './spans.ts';

export interface ReadReference {
  record: SourceRecord;
  spans: Span[];
  /** From 0 to 1: how much of what a reference has was found, and how much of the text was understood. */
  sure: number;
}

const YEAR = String.raw`(?:1[4-9]\d\d|20\d\d)`;

/** Whether a text is a reference at all: it has a year, or is a case, and enough words that begin great. */
export function looksLikeReference(text: string): boolean {
  if (text.length < 15 || text.length > 1500) return false;
  const great = text.match(/(?<!\p{L})\p{Lu}[\p{L}.'’-]*/gu)?.length ?? 0;
  if (/\sv\.?\s\p{Lu}/u.test(text) && /\d/.test(text)) return true;
  if (!new RegExp(String.raw`(?<!\d)${YEAR}|\bn\.\s?d\.|\bin press\b|\bforthcoming\b`, 'i').test(text)) return false;
  // A sentence that tells of a year is none: it ends no part before it does.
  const parts = text.split(/[.,;:()“”"]\s/).length;
  return great >= 2 && parts >= 3;
}

/** @throws nothing: what cannot be read is a document that has its whole text as its title */
export function readReference(text: string): ReadReference {
  const slate = new Slate(text);
  const record: SourceRecord = { type: 'document' };
  takeIdentifiers(slate, record);
  const law = readLaw(slate);
  if (law) return { record: { ...record, ...law }, spans: sorted(slate), sure: 0.85 };
  takeWhere(slate, record);
  takeWhoWhenWhat(slate, record);
  record.type = kindOf(record, text);
  settle(record);
  return { record, spans: sorted(slate), sure: sureness(record, slate.guessed) };
}

const sorted = (slate: Slate): Span[] => slate.spans.toSorted((a, b) => a.start - b.start);
const put = (record: SourceRecord, field: TextVariable, value: string | undefined): void => {
  const v = value?.replace(/^[\s“”"‘’'«»]+|[\s“”"‘’'«».,;:]+$/g, '').trim();
  if (v && !record[field]) record[field] = v;
};

function takeIdentifiers(slate: Slate, record: SourceRecord): void {
  const doi = /(?:https?:\/\/(?:dx\.)?doi\.org\/|\bdoi:?\s*)?(10\.\d{4,9}\/\S+)/i.exec(slate.left);
  const found = doi && findDois(doi[0])[0];
  if (doi && found) {
    const at = slate.left.indexOf(found, doi.index);
    record.DOI = found;
    slate.take('DOI', at, at + found.length);
    slate.blank(doi.index, doi.index + doi[0].length);
  }
  const seen = new RegExp(
    String.raw`[\[(]?(?:(?:last\s+)?accessed|retrieved|viewed|cited|abgerufen am|consulté le)\s*:?\s*(?:on\s+)?(?<on>(?:\d{1,2}\s+)?\p{L}{3,9}\.?\s+(?:\d{1,2},\s*)?\d{4}|\d{4}(?:[ -]\p{L}{3,9}[ -]\d{1,2}|-\d\d-\d\d)|\d{1,2}[./]\d{1,2}[./]\d{4})[\])]?[.,]?`,
    'iu',
  );
  const accessed = slate.match(seen, { on: 'accessed' })?.accessed;
  if (accessed) record.accessed = parseDate(accessed.replace(/^(\d{4}) (\p{L}+) (\d+)$/u, '$3 $2 $1'))!;
  const address = slate.match(
    /(?:(?:available (?:at|from)|retrieved from|url)\s*:?\s*)?<?(?<url>https?:\/\/[^\s<>\u0000]+[^\s<>\u0000.,;)\]])>?/i,
    { url: 'URL' },
  )?.URL;
  if (address) record.URL = address;
  const isbn = slate.match(/\bISBN(?:-1[03])?:?\s*(?<isbn>[\dXx][\d\s-]{8,16}[\dXx])/i, { isbn: 'ISBN' })?.ISBN;
  if (isbn) record.ISBN = normaliseIsbn(isbn) ?? isbn;
  const pmid = slate.match(/\b(?:PMID|PubMed PMID):?\s*(?<pmid>\d{5,8})/i, { pmid: 'PMID' })?.PMID;
  if (pmid) record.PMID = pmid;
}

const PAGES = String.raw`(?:[ivxlc]{1,7}(?:\s?[-–—]{1,2}\s?[ivxlc\d]{1,7})?(?![\p{L}\d])|[A-Za-z]{0,2}\d+[A-Za-z]?(?:\s?[-–—]{1,2}\s?[A-Za-z]{0,2}\d+[A-Za-z]?)?(?:,\s?\d+[-–]\d+)*)`;
const VOLUME = String.raw`(?:(?:[A-Z]{1,3}-)?\d{1,4}(?:[-–/]\d{1,4})?[A-Z]?|[IVXLC]{1,7})`;
const MONTH = String.raw`(?:\p{L}{3,9}\.?(?:\s*[-–/]\s*\p{L}{3,9}\.?)?\s+(?:\d{1,2},?\s+)?)`;

/** Volume, issue and pages in the forms styles print them; the date where it stands among them. */
const WHERE: RegExp[] = [
  // ‘Title’ (1993) 6(2) Electronic Publishing 273, as law journals print it
  String.raw`(?<=[’”'"]\s)[(\[](?<year>${YEAR})[)\]]\s+(?:(?<volume>${VOLUME})(?:\s?\((?<issue>[\w/–-]{1,12})\))?\s+)?(?<journal>\p{Lu}[^\u0000\d]{2,150}?)\s+(?<page>${PAGES})(?=[\s.,]*(?:\u0000|$))`,
  // 2011;41(3):311-28
  String.raw`(?<year>${YEAR})(?:\s+\p{L}{3,9}(?:\s\d{1,2})?)?\s*;\s*(?<volume>${VOLUME})(?:\s*\((?<issue>[^)\u0000]{1,20})\))?\s*:\s*(?<page>${PAGES})`,
  // 41, no. 3 (Spring 2011): 311–28
  String.raw`(?:\bvol\.\s*)?(?<volume>${VOLUME})\s*,\s*(?:no|nr|issue|iss|heft)\.?\s*(?<issue>[\w/–-]{1,12})\s*\(${MONTH}?(?<year>${YEAR})\)\s*[:,]?\s*(?:pp?\.\s*)?(?<page>${PAGES})?`,
  // 41 (3): 311–328; 41(3), 311–328
  String.raw`(?:\bvol\.\s*)?(?<![\d])(?<volume>${VOLUME})\s*\((?!${YEAR}\))(?<issue>[\w/–\s-]{1,12})\)\s*[:,]\s*(?:pp?\.\s*)?(?<page>${PAGES})`,
  // 41 (2011): 311–28; 41(2011), 311
  String.raw`(?:\bvol\.\s*)?(?<![\d])(?<volume>${VOLUME})(?:\s*[.,/]\s*(?<issue>\d{1,3}))?\s*\(${MONTH}?(?<year>${YEAR})\)\s*[:,]?\s*(?:pp?\.\s*)?(?<page>${PAGES})`,
  // vol. 41, no. 3, pp. 311–328, May 2011
  String.raw`\bvol\.?\s*(?<volume>${VOLUME})(?:\s*,\s*(?:no|nr|iss)\.?\s*(?<issue>[\w/–-]{1,12}))?(?:\s*,?\s*${MONTH}?(?<year>${YEAR}))?(?:\s*,\s*(?:pp?|art)\.\s*(?<page>${PAGES}))?`,
  // 41: 311–328; 41, 311–328
  String.raw`(?<=[\p{L}.,]\s)(?!${YEAR}\s*,)(?<volume>${VOLUME})\s*[:,]\s*(?:pp?\.\s*)?(?<page>[A-Za-z]?\d+\s?[-–—]{1,2}\s?[A-Za-z]?\d+|e\d+)`,
  // 41(3). — at the end
  String.raw`(?<=[\p{L}’'.]\s*,\s)(?<volume>${VOLUME})\s*\((?!${YEAR}\))(?<issue>[\w/–-]{1,12})\)(?=[\s.]*(?:\u0000|$))`,
  // Proceedings of the Shore, 1982, 793–96.
  String.raw`(?<=[\p{L})”’]\s*,\s)(?<year>${YEAR}),\s(?<page>\d{1,5}\s?[-–—]\s?\d{1,5})(?=[\s.]*(?:\u0000|$))`,
  // Proceedings of the Shore, 82–87. — with no volume
  String.raw`(?<=[\p{L})”’]\s*,\s)(?!${YEAR}\s?[-–—])(?<page>\d{1,5}\s?[-–—]\s?\d{1,5})(?=[\s.]*(?:\u0000|$)|\.\s\p{Lu})`,
].map((p) => new RegExp(p, 'du'));

const EDITION =
  /\(?(?<edition>\b(?:\d{1,2}(?:st|nd|rd|th)|[Ff]irst|[Ss]econd|[Tt]hird|[Rr]ev(?:ised|\.)|[Nn]ew)\s+(?:[Rr]ev\.\s+)?ed(?:ition|n)?\b\.?)\)?/;
const THESIS =
  /[[(](?<genre>(?:(?:unpublished|un-published)\s+)?(?:ph\.?\s?d\.?|doctoral|master(?:['’]?s)?|m\.?a\.?|m\.?sc\.?|dphil|diploma)\s*(?:thesis|dissertation|diss\.?)),?\s*(?<publisher>[^\])\u0000\d]*?)(?:,\s*(?<year>(?:1[4-9]|20)\d\d))?[\])]/i;
const DOCTOR = String.raw`(?:[Pp][Hh]\.?\s?[Dd]\.?|D\.?\s?[Pp]hil\.?)`;
const DEGREE = String.raw`(?:${DOCTOR}|M\.?\s?A\.?|M\.?\s?[Ss]c\.?|M\.?\s?[Pp]hil\.?)`;
/** Ph.D. diss., University of Sallow, 1999. — at the end, without brackets */
const THESIS_OPEN = new RegExp(
  String.raw`(?<=[.,”"’'\u0000]\s*)(?<genre>(?:[Uu]npublished\s+)?(?:(?:${DEGREE}|[Dd]octoral|[Mm]aster(?:['’]?s)?|[Dd]iploma)\s+(?:thesis|dissertation|diss\.?)|${DOCTOR}))[,.]?\s+(?<publisher>\p{Lu}[^\u0000():\d]{2,90}?)(?:,\s*(?<year>${YEAR}))?\.?(?=[\s\u0000]*$)`,
  'du',
);
/** [Honours thesis], [Map]: what it is, as author-date styles say it. */
const MEDIUM =
  /\[(?<genre>[^\][\u0000\d]{0,40}\b(?:thesis|dissertation|report|paper|map|letter|film|software|data ?set|review|manuscript|lecture|poster|video|photograph)\b[^\][\u0000\d]{0,30})\]/i;
const REPORT_NO =
  /[[(]?(?<number>(?:Report|Working Paper|Technical Report|Paper|Publication)\s+(?:No\.?\s*)?[\w./-]*\d[\w./-]*)[\])]?/;
/** (Place: Publisher, 1999) */
const IMPRINT = new RegExp(
  String.raw`\((?:(?<place>[\p{L} .,&-]{2,50}?)\s*:\s*)?(?<publisher>\p{Lu}[^()\u0000:]{2,80}?),?\s+(?<year>${YEAR})\)(?:\s*[:,]?\s*(?:pp?\.\s*)?(?<page>\d+(?:[-–]\d+)?))?`,
  'du',
);
/** (2nd edn, Publisher 1999), as law prints it */
const IMPRINT_LAW = new RegExp(
  String.raw`\((?:(?<edition>(?:\d{1,2}(?:st|nd|rd|th)|[Ff]irst|[Ss]econd|[Tt]hird|[Rr]ev(?:ised)?)(?: edn?)?),\s+)?(?!(?:Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec|Spring|Summer|Autumn|Fall|Winter)\p{Ll}*\.?[\s,–-])(?<publisher>\p{Lu}[^()\u0000\d:]{1,80}?),?\s(?<year>${YEAR})\)(?=[\s.,]*(?:\u0000|$|\d))`,
  'du',
);
/** Place: Publisher, 1999. — at the end, or after a full stop */
const IMPRINT_END = new RegExp(
  String.raw`(?<=[.,;)\u0000]\s*)(?<!\(${YEAR}[^()\u0000]{0,20}\)[.,]?\s*)(?<place>\p{Lu}(?:[\p{L} &-]|(?<=\b(?:St|Ft|Mt|\p{Lu}))\.){1,40}?(?:,\s(?:[A-Z]{2,3}|\p{Lu}\p{Ll}+)){0,3})\s*:\s+(?<publisher>\p{Lu}[^:\u0000()]{2,80}?)(?:[,;.]\s*(?<year>${YEAR}))?\.?(?=[\s\u0000]*$|[\s\u0000]*[,.]\s*(?:pp?\.|\d))`,
  'du',
);

function takeWhere(slate: Slate, record: SourceRecord): void {
  const degree = { genre: 'genre', publisher: 'publisher', year: 'issued' } as const;
  const thesis = slate.match(THESIS, degree) ?? slate.match(THESIS_OPEN, degree);
  if (thesis) {
    put(record, 'genre', thesis.genre);
    if (record.genre) record.genre = record.genre.replace(/(?<=\.\s?)[A-Z]$|\bdiss$/i, '$&.');
    put(record, 'publisher', thesis.publisher);
    if (thesis.issued) record.issued = parseDate(thesis.issued)!;
  }
  put(record, 'genre', slate.match(MEDIUM, { genre: 'genre' })?.genre);
  const law = { edition: 'edition', publisher: 'publisher', year: 'issued' } as const;
  const lawful = slate.match(IMPRINT_LAW, law);
  if (lawful) put(record, 'edition', lawful.edition?.replace(/\s+edn?$/i, ''));
  put(record, 'edition', slate.match(EDITION, { edition: 'edition' })?.edition?.replace(/\s+ed(?:ition|n)?\.?$/i, ''));
  for (const pattern of WHERE) {
    const fields = {
      year: 'issued',
      volume: 'volume',
      issue: 'issue',
      journal: 'container-title',
      page: 'page',
    } as const;
    const found = slate.match(pattern, fields);
    if (!found) continue;
    put(record, 'volume', found.volume);
    put(record, 'issue', found.issue);
    put(record, 'container-title', found['container-title']);
    put(record, 'page', found.page?.replace(/\s?[-–—]{1,2}\s?/g, '-'));
    if (found.issued) record.issued ??= parseDate(found.issued)!;
    break;
  }
  const imprint = { place: 'publisher-place', publisher: 'publisher', year: 'issued', page: 'page' } as const;
  const printed = lawful ?? slate.match(IMPRINT, imprint) ?? slate.match(IMPRINT_END, imprint);
  if (printed) {
    put(record, 'publisher-place', printed['publisher-place']);
    put(record, 'publisher', printed.publisher);
    if (printed.issued) record.issued ??= parseDate(printed.issued)!;
  }
  const pages = slate.match(/[(,.]?\s*\bpp?\.\s*(?<page>[A-Za-z]?\d+(?:\s?[-–—]\s?[A-Za-z]?\d+)?)\)?/, {
    page: 'page',
  });
  put(record, 'page', pages?.page?.replace(/\s?[-–—]\s?/g, '-'));
  put(record, 'number', slate.match(REPORT_NO, { number: 'number' })?.number);
}

/** The year after the authors: "(2011)", "(2011, May 3)", ". 2011." */
const DATED = new RegExp(
  String.raw`\(?(?<=[\p{L}.,)]\s*\(?)\(?(?<date>(?:${YEAR}|n\.d\.|in press|forthcoming)(?<letter>[a-z])?(?:,\s*\p{L}{3,9}(?:\s\d{1,2})?)?)\)?\s*[.:,]?\s`,
  'du',
);
const QUOTED = /[“"«](?<title>[^“”"«»\u0000]{3,400})[”"»]|(?<=[,.\s])‘(?<single>[^‘\u0000]{5,400}?)’(?=[\s,.])/du;

function takeWhoWhenWhat(slate: Slate, record: SourceRecord): void {
  const quoted = QUOTED.exec(slate.left);
  const dated = DATED.exec(slate.left);
  // What stands before an early date, or before a quoted title, are the people.
  const early = dated && dated.index < (quoted?.index ?? slate.left.length * 0.6) ? dated : undefined;
  let rest: number;
  if (early) {
    const end = early.index;
    takePeople(slate, record, 0, end);
    const [from, to] = early.indices!.groups!.date!;
    const text = slate.take('issued', from, to);
    record.issued ??= parseDate(dateOf(text))!;
    rest = early.index + early[0].length;
    slate.blank(early.index, rest);
  } else if (quoted) {
    takePeople(slate, record, 0, quoted.index);
    rest = quoted.index;
  } else rest = peopleEnd(slate, record);
  if (quoted && quoted.index >= rest) {
    const [from, to] = (quoted.indices!.groups!.title ?? quoted.indices!.groups!.single)!;
    put(record, 'title', slate.take('title', from, to));
    slate.blank(quoted.index, quoted.index + quoted[0].length);
    rest = quoted.index + quoted[0].length;
  } else rest = takeTitle(slate, record, rest);
  takeContainer(slate, record, rest);
  if (!record.issued) {
    const late = slate.match(
      new RegExp(String.raw`(?<date>(?:\d{1,2}\s+)?(?:\p{L}{3,9}\.?\s+(?:\d{1,2},\s+)?)?(?<!\d)${YEAR})(?!\d)`, 'u'),
      { date: 'issued' },
    );
    if (late?.issued) record.issued = parseDate(dateOf(late.issued)) ?? { literal: late.issued };
  }
}

/** "2011, May 3" as "3 May 2011"; a letter that tells works of one year apart is no part of the date. */
function dateOf(text: string): string {
  const m = /^(\d{4})[a-z]?(?:,\s*(\p{L}+)(?:\s(\d{1,2}))?)?$/u.exec(text.trim());
  if (!m) return /\p{L}/u.test(text) && !/\d{1,2}.*\d{4}|\p{L}{3,} \d{4}/u.test(text) ? text : withMonth(text);
  return m[2] && monthOf(m[2]) ? [m[3], m[2], m[1]].filter(Boolean).join(' ') : m[1]!;
}
/** What stands before a year and is no month is none of the date. */
const withMonth = (text: string): string => {
  const m = /(\p{L}{3,9})\.?\s+(?:\d{1,2},\s+)?(\d{4})/u.exec(text);
  return m && !monthOf(m[1]!) ? m[2]! : text;
};

function takePeople(slate: Slate, record: SourceRecord, from: number, to: number): void {
  const text = slate.left.slice(from, to).replace(/\u0000/g, ' ');
  const role = /[,(\s]*\b(?:eds?|hrsg|editors?)\b\.?\)?[\s.,]*$/i.exec(text);
  const names = readNames(role ? text.slice(0, role.index) : text.replace(/\.\s*$/, keepInitial));
  if (!names.length) return;
  const field = role ? 'editor' : 'author';
  record[field] ??= names;
  slate.take(field, from, role ? from + role.index : to);
  slate.blank(from, to);
}
const keepInitial = (dot: string, at: number, whole: string): string =>
  /(?:^|[\s.-])\p{Lu}$/u.test(whole.slice(0, at)) ? dot.trim() : '';

/** A list of names that ends with a full stop, or a name before a comma and an italic title: where the title begins. */
function peopleEnd(slate: Slate, record: SourceRecord): number {
  const t = slate.left;
  // "Vance S, Ito R. ": each name a family name with initials behind it.
  const glued =
    /^(?:(?:(?:van|von|de|der|den|du|la|le)\s+)*\p{Lu}[\p{L}'’-]+(?:\s\p{Lu}[\p{L}'’-]+)?\s\p{Lu}{1,3}(?:,\s+|\.\s+|\s+and\s+|,?\s+et al\.\s*))+/u.exec(
      t,
    );
  // "S. Vance, R. M. Ito, and K. Lu, ": initials lead each of them.
  const led =
    /^(?:(?:\p{Lu}\.[\s-]*){1,4}(?:(?:van|von|de|der|den|du|la|le|Van|Von|De|Du|Le|La)\s+)*\p{Lu}[\p{L}'’-]+(?:\s(?:Jr|Sr|II|III|IV)\b\.?)?(?:,?\s(?:and|&)\s|,\s))+/u.exec(
      t,
    );
  // "Vance, S., and R. Ito. ", "S. Vance and R. Ito, ", "Solveig Vance, "; a full stop after initials ends them only where a
  // family name stands before, and no more initials follow.
  const spelt =
    /^(?:[^.\u0000]|(?<=(?:^|[\s.-])\p{Lu})\.|(?<=\bet al)\.|(?<=\b(?:Jr|Sr|St|eds?))\.){3,200}?(?:(?<!(?:^|[\s.-])\p{Lu})|(?<=,\s(?:\p{Lu}[\p{L}'’-]*\.?[\s-]?){0,3}\p{Lu}))\.\s+(?!\p{Lu}\.|\p{Lu}[\p{L}'’-]+(?:,|\s(?:and|&)\s))(?=[\p{Lu}“"'(\d])/u.exec(
      t,
    );
  const spoken =
    /^(?:\p{Lu}[\p{L}.'’-]*\s+){1,3}\p{Lu}[\p{L}'’-]+(?:(?:,\s|,?\s+(?:and|&)\s)(?:\p{Lu}[\p{L}.'’-]*\s+){1,3}\p{Lu}[\p{L}'’-]+)*(?:\s+\(eds?\.?\))?,\s+/u.exec(
      t,
    );
  const end =
    (led ?? glued ?? (spoken && (!spelt || spoken[0].length < spelt[0].length) ? spoken : spelt))?.[0].length ?? 0;
  if (end && end < t.length * 0.7) takePeople(slate, record, 0, end);
  else return 0;
  return end;
}

/** A title ends with a full stop, a question mark, or where something read before stands. */
function takeTitle(slate: Slate, record: SourceRecord, from: number): number {
  const t = slate.left.slice(from);
  const lead = /^[\s.,:\u0000]*/.exec(t)![0].length;
  const m =
    /^(?:[^.?!\u0000]|[.?!](?!\s|\u0000|$)|(?<=(?:^|[\s.(])\p{Lu})\.|(?<=\b(?:vs|cf|no|St|Dr|ca?))\.){2,500}?(?=(?<!(?:^|[\s.(])\p{Lu})[.](?:\s|\u0000|$)|[?!](?:\s|\u0000|$)|\s*\u0000|\s+\(?\bIn:?\s+\p{Lu}|$)/u.exec(
      t.slice(lead),
    );
  const end = from + lead + (m?.[0].length ?? 0);
  const sign = /[?!]/.test(slate.left[end] ?? '') ? 1 : 0;
  put(record, 'title', slate.take('title', from + lead, end + sign));
  return end + sign;
}

/** What stands between the title and the volume: the journal, or "In A. Editor (Ed.), Book". */
function takeContainer(slate: Slate, record: SourceRecord, from: number): void {
  const t = slate.left;
  const within = /(?<=^|[\s.,\u0000”"’])(?:In|in):?\s+/.exec(t.slice(from));
  if (within && !record.issue) {
    const start = from + within.index + within[0].length;
    // As much as editors and book have room for, below.
    const rest = t.slice(start, start + 500);
    const led =
      /^(?<editors>[^()\u0000]{3,150}?)\s*,?\s*\(?\b(?:Eds?|Hrsg|editors?)\.?\)?[.,]?\s+(?<book>[^\u0000]{3,250}?)(?=[\s,.]*(?:\u0000|$|\())/du.exec(
        rest,
      );
    const after =
      /^(?<book>[^\u0000]{3,250}?),?\s+(?:edited by|ed(?:s)?\.(?: by)?|hrsg\.(?: von)?)\s+(?<editors>[^\u0000]{3,150}?)(?=[\s,.]*(?:\u0000|$|\())/du.exec(
        rest,
      );
    // "in Book, J. Editor and K. Other, Eds."
    const between =
      /^(?<book>[^\u0000]{3,250}?),\s+(?<editors>(?:\p{Lu}\.[\s-]*){1,4}[^\u0000]{2,150}?),\s+Eds?\.(?=[\s,.]*(?:\u0000|$|\())/du.exec(
        rest,
      );
    const m = between ?? led ?? after;
    if (m?.indices?.groups) {
      const { editors, book } = m.indices.groups;
      record.editor ??= readNames(slate.take('editor', start + editors![0], start + editors![1]));
      put(record, 'container-title', slate.take('container-title', start + book![0], start + book![1]));
      slate.blank(from + within.index, start);
      return;
    }
    const plain = /^[^\u0000]{3,250}?(?=\s*(?:\u0000|$|\.\s))/u.exec(t.slice(start));
    if (plain) put(record, 'container-title', slate.take('container-title', start, start + plain[0].length));
    slate.blank(from + within.index, start);
    return;
  }
  const next = /[^\u0000\s.,;:()[\]“”"][^\u0000]*/.exec(t.slice(from));
  if (!next) return;
  const start = from + next.index;
  const text = next[0].replace(/[\s,.;:([]+$/, '');
  if (text.length < 2) return;
  if (record.volume || record.page)
    put(record, 'container-title', slate.take('container-title', start, start + text.length));
  else if (!record.publisher && /^\p{Lu}/u.test(text)) takeImprint(slate, record, start, text);
}

/** What is left of a book: "Publisher", "Place, Publisher", "Site name". A full stop after an initial ends none. */
function takeImprint(slate: Slate, record: SourceRecord, start: number, text: string): void {
  const first = /^(?:[^.]|(?<=(?:^|[\s.,&-])\p{Lu})\.|(?<=\b(?:St|Co|Ltd|Inc|Univ))\.(?=\s))+/u.exec(text)?.[0] ?? text;
  const field = record.URL && !record.edition ? 'container-title' : 'publisher';
  slate.guessed = true;
  put(record, field, slate.take(field, start, start + first.length).replace(new RegExp(`,?\\s*${YEAR}$`), ''));
}

function kindOf(record: SourceRecord, text: string): SourceRecord['type'] {
  if (record.genre && /thesis|diss|\bph\.?\s?d\b|\bphil\b/i.test(record.genre)) return 'thesis';
  if (/\bproceedings\b|\bconference\b|\bsymposium\b|\bworkshop\b/i.test(record['container-title'] ?? ''))
    return 'paper-conference';
  if (record['container-title'] && (record.editor || (record.publisher && !record.volume))) return 'chapter';
  if (record['container-title'] && (record.volume || record.issue || record.page)) return 'article-journal';
  if (record.number && /report|paper/i.test(record.number)) return 'report';
  if (record.publisher || record.ISBN || record.edition || record['publisher-place']) return 'book';
  if (record.URL || record.accessed) return 'webpage';
  if (/\barXiv\b|preprint/i.test(text)) return 'article';
  return 'document';
}

function settle(record: SourceRecord): void {
  if (record.type === 'document' && !record.title && record['container-title']) {
    record.title = record['container-title'];
    delete record['container-title'];
  }
}

/** @param guessed what was left at the end was taken for the publisher, and nothing bears it out */
function sureness(record: SourceRecord, guessed: boolean): number {
  const has = [
    record.author ?? record.editor,
    record.issued,
    record.title,
    record['container-title'] ?? record.publisher,
  ];
  const found = has.filter(Boolean).length;
  return [0.1, 0.25, 0.4, 0.6, 0.75][found]! + (record.page || record.DOI ? 0.1 : 0) - (guessed ? 0.15 : 0);
}
