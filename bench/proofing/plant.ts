/**
 * Faults planted in sound records, one at a time, each named with the field it is in: as people and databases make them. Written
 * from what records of databases look like, not from the rules that are to find them.
 */
import type { Chance } from '@pandecta/demo/random';
import type { Name, SourceRecord } from '@pandecta/core/source';

export interface Planted {
  fault: string;
  record: SourceRecord;
  /** Where a finding has to be, in any of them. */
  fields: string[];
}

type Rec = Record<string, unknown>;
type Plant = (r: SourceRecord, chance: Chance) => { to: Rec; fields: string[] } | undefined;

const one = (field: string, value: unknown): { to: Rec; fields: string[] } => ({
  to: { [field]: value },
  fields: [field],
});
/** A text mangled as a program does that takes UTF-8 for Windows-1252. */
const mangle = (text: string): string => new TextDecoder('windows-1252').decode(new TextEncoder().encode(text));
const NAMED = (r: SourceRecord): Name[] => (r.author ?? []).filter((n) => n.family && n.given);
const setAuthor = (r: SourceRecord, at: number, to: Name[]): { to: Rec; fields: string[] } =>
  one(
    'author',
    r.author!.flatMap((n, i) => (i === at ? to : n)),
  );
const titleWords = (t: string): number => t.split(/\s+/).length;
const isArticle = (r: SourceRecord): boolean => r.type === 'article-journal';
const BODIES = ['Royal Society of Northmere', 'Ministry of Public Works', 'Northern Fisheries Commission', 'University of Sallow Press Office', 'National Bureau of Tides', 'Institute of Marine Physics']; // prettier-ignore

export const PLANTS: Record<string, Plant> = {
  'no date': (r) => (r.issued ? { to: { issued: undefined }, fields: ['issued'] } : undefined),
  'no journal': (r) => (isArticle(r) && r['container-title'] ? { to: { 'container-title': undefined }, fields: ['container-title', 'type'] } : undefined), // prettier-ignore
  'no volume and issue': (r) => (isArticle(r) && r.volume ? { to: { volume: undefined, issue: undefined }, fields: ['volume', 'issue'] } : undefined), // prettier-ignore
  'no pages': (r) =>
    isArticle(r) && r.page && r.volume ? { to: { page: undefined, number: undefined }, fields: ['page'] } : undefined,
  'no author': (r) => (r.author?.length && !r.editor ? { to: { author: undefined }, fields: ['author'] } : undefined),
  'no publisher': (r) =>
    r.type === 'book' && r.publisher ? { to: { publisher: undefined }, fields: ['publisher'] } : undefined,
  'no title': () => ({ to: { title: undefined, 'title-short': undefined }, fields: ['title'] }),
  'web page without access': (r) => ({ to: { type: 'webpage', URL: 'https://tides.example/a', accessed: undefined, volume: undefined, issue: undefined, page: undefined, DOI: undefined, 'container-title': r['container-title'] ?? 'Tides' }, fields: ['accessed'] }), // prettier-ignore
  'DOI cut off': (r) => (r.DOI ? one('DOI', r.DOI.slice(0, 7)) : undefined),
  'DOI with words': (r, c) => (r.DOI ? one('DOI', c.pick([`doi: ${r.DOI}`, `DOI ${r.DOI}.`, `${r.DOI} (open access)`, `info:doi/${r.DOI}`])) : undefined), // prettier-ignore
  'DOI as address': (r, c) => (r.DOI ? one('DOI', c.pick(['https://doi.org/', 'http://dx.doi.org/', 'https://www.doi.org/', 'doi.org/']) + r.DOI) : undefined), // prettier-ignore
  'ISBN with a wrong digit': (r) => (r.ISBN && /\d{4}/.test(r.ISBN) ? one('ISBN', r.ISBN.replace(/\d/, (d) => String((Number(d) + 1) % 10))) : undefined), // prettier-ignore
  'ISSN with a wrong digit': (r) => (r.ISSN && /^\d{4}-?\d{3}[\dX]$/.test(r.ISSN) ? one('ISSN', r.ISSN.replace(/\d/, (d) => String((Number(d) + 3) % 10))) : undefined), // prettier-ignore
  'body as person': (r, c) => {
    if (!r.author?.length) return undefined;
    const words = c.pick(BODIES).split(' ');
    return setAuthor(r, 0, [c.odds(0.5) ? { family: words.at(-1)!, given: words.slice(0, -1).join(' ') } : { family: words.join(' ') }]); // prettier-ignore
  },
  'person as body': (r, c) => {
    const n = NAMED(r)[0];
    if (!n || n['non-dropping-particle'] || n.suffix) return undefined;
    return setAuthor(r, r.author!.indexOf(n), [
      { literal: c.pick([`${n.family}, ${n.given}`, `${n.given} ${n.family}`]) },
    ]);
  },
  'several in one name': (r, c) => {
    const [a, b] = NAMED(r);
    if (!a || !b || r.author!.length !== 2 || a.suffix || b.suffix) return undefined;
    const sep = c.pick(['; ', ' and ', ' & ']);
    const text = sep === '; ' ? `${a.family}, ${a.given}; ${b.family}, ${b.given}` : `${a.given} ${a.family}${sep}${b.given} ${b.family}`; // prettier-ignore
    return one('author', [{ literal: text }]);
  },
  'name parts swapped': (r) => {
    const n = NAMED(r).find((x) => /^(?:\p{Lu}\.?[ -]?){1,3}$/u.test(x.given!) && x.family!.length > 3 && !x.suffix);
    return n ? setAuthor(r, r.author!.indexOf(n), [{ ...n, family: n.given!, given: n.family! }]) : undefined;
  },
  'suffix in the family name': (r, c) => {
    const n = NAMED(r).find((x) => !x.suffix);
    return n ? setAuthor(r, r.author!.indexOf(n), [{ ...n, family: `${n.family}${c.pick([', Jr.', ' Jr', ' III', ', Sr.'])}` }]) : undefined; // prettier-ignore
  },
  'particle in the given name': (r, c) => {
    const n = NAMED(r).find((x) => !x['non-dropping-particle'] && !x['dropping-particle']);
    return n ? setAuthor(r, r.author!.indexOf(n), [{ ...n, given: `${n.given} ${c.pick(['van der', 'von', 'de la', 'di', 'ten'])}` }]) : undefined; // prettier-ignore
  },
  'name in capitals': (r) => {
    const n = NAMED(r).find((x) => x.family!.length > 4);
    return n ? setAuthor(r, r.author!.indexOf(n), [{ ...n, family: n.family!.toUpperCase() }]) : undefined;
  },
  'year in the future': (_, c) => one('issued', { 'date-parts': [[c.int(2031, 2090)]] }),
  'year of three digits': (r) => (r.issued?.['date-parts'] ? one('issued', { 'date-parts': [[Number(String(r.issued['date-parts'][0]![0]).slice(0, 3))]] }) : undefined), // prettier-ignore
  'pages backwards': (r) => {
    const m = /^(\d{1,4})[-–]+(\d{2,4})$/.exec(r.page ?? '');
    return m && Number(m[2]) > Number(m[1]) ? one('page', `${m[2]}-${m[1]}`) : undefined;
  },
  'label in pages': (r, c) => (r.page && /^\d/.test(r.page) ? one('page', c.pick([`pp. ${r.page}`, `p. ${r.page}`, `pages ${r.page}`, `pp ${r.page}`, `S. ${r.page}`, `pp.${r.page}`, `P. ${r.page}`])) : undefined), // prettier-ignore
  'label in volume': (r, c) => (r.volume && /^\d+$/.test(r.volume) ? one('volume', c.pick([`Vol. ${r.volume}`, `vol ${r.volume}`, `Volume ${r.volume}`, `v. ${r.volume}`, `Bd. ${r.volume}`, `V.${r.volume}`])) : undefined), // prettier-ignore
  'label in issue': (r, c) => (r.issue && /^\d+$/.test(r.issue) ? one('issue', c.pick([`No. ${r.issue}`, `no ${r.issue}`, `Issue ${r.issue}`, `Nr. ${r.issue}`, `Iss. ${r.issue}`, `#${r.issue}`, `n. ${r.issue}`, `Heft ${r.issue}`])) : undefined), // prettier-ignore
  'volume and issue in one': (r, c) => (r.volume && /^\d+$/.test(r.volume) && /^\d+$/.test(r.issue ?? '') ? { to: { volume: c.pick([`${r.volume}(${r.issue})`, `${r.volume} (${r.issue})`, `${r.volume}, no. ${r.issue}`, `${r.volume}:${r.issue}`, `${r.volume}/${r.issue}`]), issue: undefined }, fields: ['volume', 'issue'] } : undefined), // prettier-ignore
  'edition in words': (r, c) => (r.type === 'book' ? one('edition', c.pick(['Second', '2nd ed.', 'Third edition', '3rd edition', '2nd', '4th ed', 'Fourth', '2. Aufl.', '5. Auflage', '2e éd.'])) : undefined), // prettier-ignore
  'place in the publisher': (r, c) => (r.publisher && !r['publisher-place'] && r.type === 'book' ? one('publisher', `${c.pick(['London', 'New York', 'Cambridge, UK', 'Berlin', 'Cambridge, MA'])}: ${r.publisher}`) : undefined), // prettier-ignore
  'title in capitals': (r) => (r.title && titleWords(r.title) > 3 ? one('title', r.title.toUpperCase()) : undefined),
  'journal in capitals': (r) => (isArticle(r) && titleWords(r['container-title'] ?? '') > 1 ? one('container-title', r['container-title']!.toUpperCase()) : undefined), // prettier-ignore
  'stop at the end of the title': (r) => (/\p{Ll}{3}$/u.test(r.title ?? '') ? one('title', `${r.title}.`) : undefined),
  'spaces doubled': (r) => (titleWords(r.title ?? '') > 2 ? one('title', r.title!.replace(' ', '  ')) : undefined),
  'comma at the end': (r) => (r['container-title'] && /\p{L}$/u.test(r['container-title']) ? one('container-title', `${r['container-title']},`) : undefined), // prettier-ignore
  'entities left': (r, c) => (titleWords(r.title ?? '') > 2 ? one('title', r.title!.replace(' ', c.pick([' &amp; ', ' &#8211; ', ' &quot;x&quot; ', '&nbsp;', ' &lt;i&gt;a&lt;/i&gt; ']))) : undefined), // prettier-ignore
  'tags left': (r, c) => (titleWords(r.title ?? '') > 2 ? one('title', c.pick([`<p>${r.title}</p>`, `<jats:title>${r.title}</jats:title>`, `<em>${r.title}</em>`, `${r.title}<br/>`])) : undefined), // prettier-ignore
  'LaTeX left': (r, c) => (titleWords(r.title ?? '') > 2 ? one('title', r.title!.replace(' ', c.pick([' {DNA} ', ' \\emph{x} ', " M{\\\"u}ller ", ' $\\alpha$ ', ' \\textit{E. coli} ']))) : undefined), // prettier-ignore
  'mangled characters': (r, c) => (r.title ? one('title', mangle(`${r.title}${c.pick([' – a café', ' in São Tomé', ': naïve', '’s “end”', ' of Łódź', ' à Paris'])}`)) : undefined), // prettier-ignore
  'web page that is an article': (r) => (isArticle(r) && r.volume && r.page && r['container-title'] ? { to: { type: 'webpage', URL: 'https://a.example/1', accessed: { 'date-parts': [[2020, 1, 1]] } }, fields: ['type'] } : undefined), // prettier-ignore
  'chapter without its book': (r) => (r.type === 'chapter' && r['container-title'] ? { to: { 'container-title': undefined, 'collection-title': undefined }, fields: ['container-title', 'type'] } : undefined), // prettier-ignore
  'book that is an article': (r) => (isArticle(r) && r.volume && r.page && r['container-title'] ? { to: { type: 'book' }, fields: ['type'] } : undefined), // prettier-ignore
  'case without court': () => ({ to: { type: 'legal_case', title: 'Halvard v Penhallow', 'container-title': 'Est R', volume: '2', page: '114', authority: undefined, jurisdiction: undefined }, fields: ['authority'] }), // prettier-ignore
  'parallel citation': () => ({ to: { type: 'legal_case', title: 'Halvard v Penhallow', 'container-title': '[1987] 2 Est R 114; [1987] NCA 12', authority: 'Ct App' }, fields: ['container-title'] }), // prettier-ignore
  'pinpoint as page': () => ({ to: { type: 'legal_case', title: 'Halvard v Penhallow', 'container-title': 'Est R', volume: '2', page: '114, 120', authority: 'Ct App' }, fields: ['page'] }), // prettier-ignore
  'statute as case': (_, c) => ({ to: { type: 'legal_case', title: c.pick(['Barrier Act 1891', 'Harbours (Amendment) Act 1904', 'Tidal Works Regulations 2003', 'Water Code']), authority: 'Ct App', 'container-title': 'Est R', page: '3' }, fields: ['type'] }), // prettier-ignore
  'quotation marks of another language': (r) => (titleWords(r.title ?? '') > 3 ? one('title', r.title!.replace(/^(\S+) (\S+)/, '$1 „$2“')) : undefined), // prettier-ignore
};

/** A record with the fault in it, where it can have it. */
export function plant(fault: string, record: SourceRecord, chance: Chance): Planted | undefined {
  const done = PLANTS[fault]!(record, chance);
  if (!done) return undefined;
  const to = Object.fromEntries(Object.entries({ ...record, ...done.to }).filter(([, v]) => v !== undefined));
  return { fault, fields: done.fields, record: to as unknown as SourceRecord };
}
