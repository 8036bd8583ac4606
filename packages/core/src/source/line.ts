/** A record in one line of a list: who, where it was published, when, in the fewest words. */
import { dateShort, yearShort } from './dates.ts';
import { nameShort, namesShort } from './names.ts';
import type { SourceRecord } from './record.ts';

type Brief = Pick<
  SourceRecord,
  | 'type'
  | 'author'
  | 'editor'
  | 'recipient'
  | 'issued'
  | 'volume'
  | 'issue'
  | 'page'
  | 'container-title'
  | 'authority'
  | 'archive_location'
  | 'publisher'
>;

/** Author and year, as one names a source in passing: “Okonjo 2014”. @param title as text, said where nobody wrote it */
export const inPassing = ({ author, editor, issued }: Brief, title: string): string =>
  [namesShort(author ?? editor) || title, yearShort(issued)].filter(Boolean).join(' ');

export const whoOf = (r: Brief): string =>
  namesShort(r.author) || (r.editor?.length ? `${namesShort(r.editor)} (ed.)` : '');

export function whereOf(r: Brief): string {
  if (r.type === 'legal_case')
    return [[r.volume, r['container-title'], r.page].filter(Boolean).join(' '), r.authority].filter(Boolean).join(', ');
  const host = r['container-title'] ?? r.archive_location ?? r.publisher ?? '';
  const issue = r.volume ? ` ${r.volume}${r.issue ? `(${r.issue})` : ''}` : '';
  const to = r.recipient?.length ? `to ${nameShort(r.recipient[0]!)}` : '';
  return [to, host + (host && r['container-title'] ? issue : '')].filter(Boolean).join(' · ');
}

/** Who, where and when, as they stand below a title. */
export const belowOf = (r: Brief): string => [whoOf(r), whereOf(r), whenOf(r)].filter(Boolean).join(' · ');

/** Of kinds that are known by their day, the day. */
export const whenOf = (r: Brief): string =>
  ['legal_case', 'manuscript', 'personal_communication', 'article-newspaper', 'webpage'].includes(r.type)
    ? dateShort(r.issued)
    : yearShort(r.issued);
