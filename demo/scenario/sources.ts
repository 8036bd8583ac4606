/** The sources of the Sallow Estuary Inquiry as records, with where each is filed and what it holds. */
import type { Kind, Name, SourceRecord } from '@pandecta/core/source';
import { isbn13Check } from '@pandecta/core/identifiers';
import { Chance } from './random.ts';
import {
  ARTICLES,
  BOOKS,
  CASES,
  CHAPTERS,
  JOURNALS,
  LETTERS,
  PAGES,
  PEOPLE,
  PUBLISHERS,
  REPORTS,
  SENTENCES,
  STATUTES,
  SUBJECTS,
  TAGS,
  THESES,
  type Theme,
} from './words.ts';

export interface DemoSource {
  record: SourceRecord;
  subjects: string[];
  theme: Theme;
  tags: string[];
  /** Pages of its document, where it has one. */
  pages?: number;
}

const chance = new Chance(1872);

export function people(chance: Chance, n: number): Name[] {
  return chance.some(PEOPLE, n).map(([given, whole]) => {
    const particle = /^(van der|de) (.*)$/.exec(whole);
    return particle ? { given, 'non-dropping-particle': particle[1]!, family: particle[2]! } : { given, family: whole };
  });
}

export function isbn(serial: number): string {
  // 979-9 is an unassigned block; the check digits are right.
  const twelve = `9799${String(10_000_000 + serial * 37).slice(0, 8)}`;
  return twelve + isbn13Check(twelve);
}

export const slug = (text: string): string =>
  text
    .normalize('NFD')
    .replace(/[^A-Za-z ]/g, '')
    .toLowerCase()
    .split(' ')
    .filter((w) => w.length > 3)
    .slice(0, 2)
    .join('-');
const abstractOf = (theme: Theme): string =>
  [...chance.some(SENTENCES[theme], 3), ...chance.some(SENTENCES.any, 1)].join(' ');

function make(record: SourceRecord, theme: Theme, extra: Partial<DemoSource> = {}): DemoSource {
  return {
    record,
    theme,
    subjects: chance.some(SUBJECTS[theme], chance.int(0, 2)),
    tags: chance.odds(0.6) ? chance.some(TAGS[theme], chance.int(1, 2)) : [],
    ...extra,
  };
}

function article(title: string, theme: Theme, index: number): DemoSource {
  const [journal, short, issn] =
    theme === 'licensing'
      ? JOURNALS[0]!
      : theme === 'archive'
        ? JOURNALS[4]!
        : theme === 'operators'
          ? JOURNALS[3]!
          : chance.pick([JOURNALS[1]!, JOURNALS[2]!]);
  const year = chance.int(1976, 2025);
  const from = chance.int(1, 380);
  const pages = chance.int(6, 29);
  return make(
    {
      type: 'article-journal',
      title,
      author:
        index === 0
          ? [
              { given: 'Marit', family: 'Okonjo' },
              { given: 'Piers', family: 'Tregenza' },
            ]
          : people(chance, chance.pick([1, 1, 2, 2, 3, 5])),
      'container-title': journal,
      'container-title-short': short,
      volume: String(year - 1970),
      issue: String(chance.int(1, 4)),
      page: `${from}-${from + pages - 1}`,
      issued: { 'date-parts': [[index === 0 ? 2014 : year, ...(chance.odds(0.4) ? [chance.int(1, 12)] : [])]] },
      DOI: `10.5555/${slug(title)}.${year}.${String(index).padStart(4, '0')}`,
      ISSN: issn,
      language: /^É/.test(title) ? 'fr' : /^Gez/.test(title) ? 'de' : 'en',
      abstract: abstractOf(theme),
    },
    theme,
    index < 20 ? { pages } : {},
  );
}

/** Further studies of one matter at several places and times, as a real library has them. */
function series(): DemoSource[] {
  const places = [
    'Withy Reach',
    'Sallow Mouth',
    'Northmere Flats',
    'Thornquay Basin',
    'the Ottery creek',
    'Ferrow Point',
  ];
  const matters: [string, Theme][] = [
    ['Suspended sediment concentrations at', 'saltmarsh'],
    ['Vertical accretion and inundation at', 'saltmarsh'],
    ['Closure practice at', 'operators'],
    ['Navigation disputes at', 'licensing'],
    ['The commissioners’ surveys of', 'archive'],
  ];
  return matters.flatMap(([matter, theme], m) =>
    places.map((place, p) => article(`${matter} ${place}`, theme, 100 + m * 10 + p)),
  );
}

function build(): DemoSource[] {
  const out: DemoSource[] = ARTICLES.map(([title, theme], i) => article(title, theme, i));
  out.push(...series());
  BOOKS.forEach(([title, theme], i) => {
    const [publisher, place] = chance.pick(PUBLISHERS);
    out.push(
      make(
        {
          type: 'book',
          title,
          ...(i % 4 === 0 ? { editor: people(chance, 2) } : { author: people(chance, chance.int(1, 2)) }),
          publisher,
          'publisher-place': place,
          issued: { 'date-parts': [[chance.int(1958, 2024)]] },
          ISBN: isbn(i),
          'number-of-pages': String(chance.int(160, 520)),
          ...(i === 1 ? { edition: '3' } : {}),
        },
        theme,
      ),
    );
  });
  CHAPTERS.forEach(([title, book, theme]) => {
    const host = out.find((s) => s.record.title === book)!.record;
    const from = chance.int(11, 300);
    out.push(
      make(
        {
          type: 'chapter',
          title,
          author: people(chance, 1),
          'container-title': book,
          editor: host.editor ?? host.author!,
          publisher: host.publisher!,
          'publisher-place': host['publisher-place']!,
          issued: host.issued!,
          page: `${from}-${from + chance.int(12, 30)}`,
        },
        theme,
      ),
    );
  });
  CASES.forEach(([title, volume, page, authority, year, month, day], i) =>
    out.push(
      make(
        {
          type: 'legal_case',
          title,
          'container-title': 'Estuary Reports',
          volume,
          page,
          authority,
          jurisdiction: 'Estuaries',
          ...(i < 2 && {
            parallel: `[${year}] ${i + 1} Sallow LR ${40 + 61 * i}; [${year}] Vale Rep ${12 + i}, ${15 + i}`,
          }),
          issued: { 'date-parts': [[year, month, day]] },
        },
        'licensing',
        i < 3 ? { pages: chance.int(9, 16) } : {},
      ),
    ),
  );
  STATUTES.forEach(([title, number, year], i) =>
    out.push(
      make(
        {
          type: i === 5 ? 'regulation' : 'legislation',
          title,
          number,
          'container-title': 'Statutes of the Estuaries',
          jurisdiction: 'Estuaries',
          issued: { 'date-parts': [[year]] },
        },
        'licensing',
      ),
    ),
  );
  LETTERS.forEach(([title, [given, family], to, folder, year, month, day], i) =>
    out.push(
      make(
        {
          type: i % 3 === 2 ? 'manuscript' : 'personal_communication',
          title,
          author: [{ given, family }],
          recipient: [{ literal: to }],
          genre: 'Letter',
          archive: 'Sallow Quay Archive',
          archive_collection: 'Harbour Commission papers',
          archive_location: `Box 4, folder ${folder}`,
          issued: { 'date-parts': [[year, month, day]] },
        },
        'archive',
        i < 2 ? { pages: 2 } : {},
      ),
    ),
  );
  for (let i = 0; i < 14; i += 1) {
    const year = 1868 + Math.floor(i / 2);
    out.push(
      make(
        {
          type: 'manuscript',
          title: `Minute book of the Harbour Commission, ${i % 2 ? 'July to December' : 'January to June'} ${year}`,
          author: [{ literal: 'Sallow Harbour Commission' }],
          genre: 'Minute book',
          archive: 'Sallow Quay Archive',
          archive_collection: 'Harbour Commission papers',
          archive_location: `Volume ${i + 3}`,
          issued: { 'date-parts': [[year]] },
        },
        'archive',
      ),
    );
  }
  PAGES.forEach(([title, site, year, month, day]) =>
    out.push(
      make(
        {
          type: 'webpage',
          title,
          author: [{ literal: site }],
          'container-title': site,
          URL: `https://${slug(site)}.example/${slug(title)}`,
          issued: { 'date-parts': [[year, month, day]] },
          accessed: { 'date-parts': [[2026, 3, 2]] },
        },
        'operators',
      ),
    ),
  );
  REPORTS.forEach(([title, theme], i) =>
    out.push(
      make(
        {
          type: 'report',
          title,
          author: [{ literal: i < 3 ? 'Northmere Hydrographic Office' : 'Sallow Estuary Inquiry' }],
          publisher: i < 3 ? 'Northmere Hydrographic Office' : 'Sallow Estuary Inquiry',
          number: `${i + 1}`,
          genre: 'Report',
          issued: { 'date-parts': [[i < 3 ? 1989 + i : 2025]] },
        },
        theme,
      ),
    ),
  );
  THESES.forEach(([title, theme]) =>
    out.push(
      make(
        {
          type: 'thesis',
          title,
          author: people(chance, 1),
          genre: 'PhD thesis',
          publisher: 'University of Withy',
          'publisher-place': 'Withy',
          issued: { 'date-parts': [[chance.int(1998, 2023)]] },
        },
        theme,
      ),
    ),
  );
  for (const [type, title, theme, where] of OTHERS)
    out.push(
      make(
        {
          type,
          title,
          author: people(chance, 1),
          ...where,
          issued: { 'date-parts': [[chance.int(2005, 2025), chance.int(1, 12)]] },
        },
        theme,
      ),
    );
  return out;
}

const OFFICE = { publisher: 'Northmere Hydrographic Office', 'publisher-place': 'Northmere' };
const CONFERENCE = { 'container-title': 'Proceedings of the Meeting on Shores and Their Law', 'event-place': 'Withy' };
const PACKET = { 'container-title': 'The Sallow Packet', 'publisher-place': 'Sallow' };

const OTHERS: [Kind, string, Theme, Partial<SourceRecord>][] = [
  ['dataset', 'Tide gauge record of Sallow Mouth, 1955–2025', 'operators', { ...OFFICE, version: '4' }],
  ['dataset', 'Accretion plates, Withy Reach, quarterly', 'saltmarsh', { publisher: 'Sallow Estuary Inquiry' }],
  ['map', 'Chart of the Sallow mouth with soundings', 'archive', OFFICE],
  ['map', 'Plan of the proposed gate', 'archive', { archive: 'Sallow Harbour Archive', archive_location: 'Plans 14' }],
  [
    'interview',
    'Interview with a former gatekeeper',
    'operators',
    { medium: 'Transcript', archive: 'Sallow Estuary Inquiry' },
  ],
  [
    'speech',
    'Opening statement to the inquiry',
    'licensing',
    { 'event-title': 'Sallow Estuary Inquiry', 'event-place': 'Sallow' },
  ],
  ['paper-conference', 'Closing early or closing well', 'operators', { ...CONFERENCE, page: '31-44' }],
  ['paper-conference', 'Marsh as plaintiff', 'licensing', { ...CONFERENCE, page: '87-103' }],
  ['article-newspaper', 'Gate shut on the ebb; boats aground', 'archive', { ...PACKET, page: '1' }],
  ['article-newspaper', 'Inquiry hears of the promise of 1872', 'licensing', { ...PACKET, page: '3' }],
  [
    'review-book',
    'Review of Silt: A Natural History of the Sallow',
    'saltmarsh',
    {
      'container-title': 'Coastal Processes',
      'reviewed-title': 'Silt: A Natural History of the Sallow',
      page: '210-212',
    },
  ],
  [
    'graphic',
    'Photograph of the gate under construction',
    'archive',
    { archive: 'Sallow Harbour Archive', medium: 'Photograph' },
  ],
];

export const SOURCES = build();
