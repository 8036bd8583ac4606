/** A record as MARC 21: what it has no field for goes, as JSON, into one for local use. */
import { dateToEdtf, nameInverted, yearOf, type Kind, type Name } from '../../source/index.ts';
import type { Entry } from '../message.ts';
import { plainJson, remainderOf } from '../remainder.ts';
import type { MarcField, MarcRecord } from './fields.ts';
import { RELATORS } from '../relators.ts';
import { readMarc, REMAINDER_FIELD } from './read.ts';

const ROLES: typeof RELATORS = [...RELATORS, ['director', 'drt'], ['composer', 'cmp']];
const GENRE: Partial<Record<Kind, string>> = {
  'article-journal': 'Journal articles',
  'article-newspaper': 'Newspaper articles',
  'paper-conference': 'Conference papers',
  chapter: 'Book chapters',
  thesis: 'Theses',
  report: 'Technical reports',
  legal_case: 'Law reports',
  legislation: 'Statutes',
  webpage: 'Web pages',
  personal_communication: 'Letters',
  dataset: 'Data sets',
  patent: 'Patents',
};
const TYPE: Partial<Record<Kind, string>> = {
  map: 'e',
  musical_score: 'c',
  song: 'j',
  motion_picture: 'g',
  graphic: 'k',
  software: 'm',
  manuscript: 't',
};
const HOSTED = new Set<Kind>([
  'article-journal',
  'article-newspaper',
  'article-magazine',
  'chapter',
  'paper-conference',
  'legal_case',
]);

export function marcOf(source: Entry): MarcRecord {
  const marc = standard(source);
  const remainder = remainderOf(source, readMarc(marc));
  if (!remainder) return marc;
  marc.fields.push({
    tag: REMAINDER_FIELD,
    indicators: '  ',
    subfields: [
      ['a', plainJson(remainder)],
      ['2', 'pandecta'],
    ],
  });
  return marc;
}

/** No control characters: they part fields and records. */
const clean = (text: string): string => text.replace(/[\u0000-\u001f\u007f\uFFFE\uFFFF]+/g, ' ').trim();

function standard({ record: r, subjects }: Entry): MarcRecord {
  const fields: MarcField[] = [];
  const put = (tag: string, indicators: string, ...subfields: [string, string | undefined][]): void => {
    const filled = subfields.flatMap(([c, v]): [string, string][] => (v && clean(v) ? [[c, clean(v)]] : []));
    if (filled.some(([c]) => c !== '2' && c !== '4')) fields.push({ tag, indicators, subfields: filled });
  };
  const hosted = HOSTED.has(r.type) && Boolean(r['container-title']);
  const year = yearOf(r.issued);
  const y4 = year && year > 0 && year < 10000 ? String(year).padStart(4, '0') : undefined;
  put('020', '  ', ['a', r.ISBN]);
  put('022', '  ', ['a', hosted ? undefined : r.ISSN]);
  put('024', '7 ', ['a', r.DOI], ['2', 'doi']);
  put('041', '0 ', ['a', r.language]);
  put('046', '  ', ['k', r.issued && dateToEdtf(r.issued)], ['2', 'edtf']);
  put('050', ' 4', ['a', r['call-number']]);
  const people = ROLES.flatMap(([role, code]) => (r[role] ?? []).map((n) => ({ n, code })));
  people.forEach(({ n, code }, i) => {
    const first = i === 0 && code === 'aut';
    const kind = n.literal ? '10' : '00';
    put(`${first ? '1' : '7'}${kind}`, n.literal ? '2 ' : '1 ', ['a', inverted(n)], ['c', n.suffix], ['4', code]);
  });
  put('210', '0 ', ['a', r['title-short']]);
  put('240', '10', ['a', r['original-title']]);
  put('245', people[0]?.code === 'aut' ? '10' : '00', ['a', r.title]);
  put('250', '  ', ['a', r.edition]);
  put('264', ' 1', ['a', r['publisher-place']], ['b', r.publisher], ['c', y4]);
  put('300', '  ', ['a', r['number-of-pages'] && `${r['number-of-pages']} pages`]);
  put('490', '0 ', ['a', r['collection-title']], ['v', r['collection-number']]);
  put('500', '  ', ['a', r.note]);
  if (r.type === 'thesis') put('502', '  ', ['b', r.genre ?? 'Thesis']);
  put('520', '  ', ['a', r.abstract]);
  for (const s of subjects) put('653', '  ', ['a', s]);
  put('655', ' 7', ['a', GENRE[r.type]], ['2', 'local']);
  const g = [
    r.volume && `Vol. ${r.volume}`,
    r.issue && `no. ${r.issue}`,
    y4 && `(${y4})`,
    r.page && `p. ${r.page}`,
  ].filter(Boolean);
  if (hosted)
    put(
      '773',
      '0 ',
      ['t', r['container-title']],
      ['g', g.join(', ')],
      ['p', r['container-title-short']],
      ['x', r.ISSN],
    );
  put('856', '40', ['u', r.URL]);
  const level = hosted
    ? r.type === 'chapter'
      ? 'a'
      : 'b'
    : r.type === 'periodical'
      ? 's'
      : r.type === 'collection'
        ? 'c'
        : 'm';
  return { leader: `00000n${TYPE[r.type] ?? 'a'}${level} a2200000 i 4500`, fields, line: 1 };
}

const inverted = (n: Name): string => {
  const { suffix: _, ...rest } = n;
  return nameInverted(rest);
};
