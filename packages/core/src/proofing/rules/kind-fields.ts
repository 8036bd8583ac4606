import type { Kind } from '../../source/index.ts';
import { KINDS } from '../../source/index.ts';
import type { Rule } from '../rule.ts';

export const kindFields: Rule = {
  id: 'kind-fields',
  severity: 'wrong',
  title: 'Kind against its fields',
  why: 'The kind decides what of a record is printed.',
  find({ record: r }) {
    const is = (to: Kind, what: string, sure: number) => [{ field: 'type', what: `${what}: ${KINDS[to].name.toLowerCase()}?`, sure, mend: { type: to } }]; // prettier-ignore
    if (r.type === 'webpage' && r.volume && (r.issue ?? r.page) && r['container-title'])
      return is('article-journal', 'A web page with volume and pages', 0.92);
    if (r.type === 'book' && r['container-title'] && r.page && /[-–]/.test(r.page) && !r.volume)
      return is('chapter', 'A book that stands on pages of another', 0.85);
    if (r.type === 'book' && r.ISSN && r.volume && r['container-title'])
      return is('article-journal', 'A book with the volume of a journal', 0.85);
    if (r.type === 'article-journal' && !r['container-title'] && r.ISBN && r.publisher)
      return is('book', 'An article with an ISBN and a publisher', 0.88);
    if (
      r.type === 'legal_case' &&
      /\b(?:Act|Ordinance|Code|Regulations)(?:\s+\d{4})?$/.test(r.title ?? '') &&
      !/\sv\.?\s/.test(r.title ?? '')
    )
      // prettier-ignore
      return is('legislation', 'A case with the name of a statute', 0.92);
    if (r.type === 'chapter' && !r['container-title'] && !r['collection-title'])
      return [{ field: 'container-title', what: 'A chapter without its book', sure: 0.9 }];
    return [];
  },
};
