/** Faults nobody fitted on: other code, other ways of going wrong. */
import type { Name, SourceRecord } from '@pandecta/core/source';
import type { Chance } from '@pandecta/demo/random';

const OCR: [RegExp, string][] = [
  [/rn/, 'm'],
  [/cl/, 'd'],
  [/li/, 'h'],
  [/e/, 'c'],
  [/fi/, 'ﬁ'],
];
const KEYS: Record<string, string> = { a: 's', e: 'r', i: 'o', o: 'p', n: 'm', s: 'd', t: 'y', r: 't', l: 'k' };

const title = (r: SourceRecord, t: string): SourceRecord => (t.trim() ? { ...r, title: t.trim() } : r);
const people = (r: SourceRecord, make: (n: Name[]) => Name[]): SourceRecord =>
  r.author ? { ...r, author: make(r.author) } : r.editor ? { ...r, editor: make(r.editor) } : r;

export function spoilUnseen(record: SourceRecord, c: Chance, most: number): SourceRecord {
  let r: SourceRecord = { ...record };
  const t = (): string => r.title ?? '';
  for (let i = c.int(0, most + 1 - 1); i > 0; i -= 1)
    switch (c.int(0, 24 - 1)) {
      case 0:
        for (const [from, to] of OCR) if (c.odds(0.5)) r = title(r, t().replace(from, to));
        break;
      case 1: {
        const words = t().split(' ');
        if (words.length > 7) r = title(r, words.slice(0, 6 + c.int(0, words.length - 6 - 1)).join(' '));
        break;
      }
      case 2:
        r = title(r, t().replace(/(\p{L}{4})(\p{L}{4,})/u, '$1- $2'));
        break;
      case 3:
        r = people(r, (l) => l.toReversed());
        break;
      case 4:
        r = people(r, (l) =>
          l.map((n) => ({ literal: [n.family, n.given].filter(Boolean).join(', ') || (n.literal ?? '') })),
        );
        break;
      case 5:
        r = people(r, (l) => l.map((n) => (n.given ? { ...n, given: n.given.split(' ')[0]! } : n)));
        break;
      case 6:
        r = title(r, `<i>${t()}</i>`);
        break;
      case 7:
        r = title(r, `${t()} [online]`);
        break;
      case 8:
        if (r.volume) r = { ...r, volume: `Vol. ${r.volume}` };
        break;
      case 9:
        if (r.page) r = { ...r, page: `pp. ${r.page.replace('-', ' – ')}` };
        break;
      case 10:
        r = title(
          r,
          t().replace(/\b\p{Ll}/gu, (x) => x.toUpperCase()),
        );
        break;
      case 11:
        if (r.DOI) r = { ...r, DOI: `https://doi.org/${r.DOI.toUpperCase()}` };
        break;
      case 12:
        for (const f of ['DOI', 'ISBN', 'ISSN', 'URL', 'PMID'] as const) delete r[f];
        break;
      case 13:
        for (const f of ['volume', 'issue', 'container-title'] as const) if (c.odds(0.5)) delete r[f];
        break;
      case 14:
        delete r.page;
        break;
      case 15:
        if (r['container-title'])
          r = { ...r, 'container-title': r['container-title'].split(' ').map((w) => (w.length > 3 ? w.replace(/[aeiou]/g, '') : w)).join(' ') }; // prettier-ignore
        break;
      case 16: {
        const y = r.issued?.['date-parts']?.[0]?.[0];
        if (y) r = { ...r, issued: { 'date-parts': [[y - 1]] } };
        break;
      }
      case 17:
        delete r.issued;
        break;
      case 18:
        r = title(
          r,
          t().replace(/(\p{L}{2})([aeionstrl])/u, (_, a: string, b: string) => a + (KEYS[b] ?? b)),
        );
        break;
      case 19:
        r = people(r, (l) => l.map((n) => ({ ...n, ...(n.given && { given: [...n.given.matchAll(/\p{Lu}/gu)].map((m) => m[0]).join('') }) }))); // prettier-ignore
        break;
      case 20:
        r = people(r, (l) => l.slice(0, 1 + c.int(0, 2 - 1)));
        break;
      case 21:
        r = title(
          r,
          t()
            .replace(/^(?:The|A|An) /, '')
            .replace(/\.$/, ''),
        );
        break;
      case 22:
        r = { ...r, type: c.odds(0.5) ? 'document' : r.type };
        delete r.publisher;
        break;
      default:
        r = title(r, t().replaceAll('ö', 'oe').replaceAll('ü', 'ue').replace(/ and /, ' & '));
    }
  return r;
}
