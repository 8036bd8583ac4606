/** All records of a workspace, looked over. */
import { englishWords } from '@pandecta/core/english';
import { amongOf, inCase, proof, usesByKind, type Finding, type TitleCasing, type View } from '@pandecta/core/proofing';
import type { SourceRecord } from '@pandecta/core/source';
import { citerOf } from './citers.ts';

/** What is known of a source beside its record. */
type Beside = Pick<View, 'files' | 'versions'>;

/** How records are looked at. */
interface As {
  style: string;
  folder: string;
  /** The day it is, as "2026-11-28". */
  today: string;
  thisYear: number;
  /** Words that keep their form. */
  keep: string[];
}

export function proofAll({
  records,
  style,
  folder,
  thisYear,
  keep,
  today,
  beside,
}: As & { records: SourceRecord[]; beside: (Beside | undefined)[] }): (Finding & { at: number })[] {
  const among = amongOf(records);
  const usesFor = usesByKind(citerOf(folder, style));
  const english = englishWords();
  return records.flatMap((record, at) =>
    proof({ record, among, english, keep, uses: usesFor(record.type), today, thisYear, ...beside[at] }).map((f) => ({
      at,
      ...f,
    })),
  );
}

/** A record by itself. */
export const proofOne = ({
  record,
  style,
  folder,
  beside,
  ...as
}: As & { record: SourceRecord; beside?: Beside | undefined }): Finding[] =>
  proof({ record, english: englishWords(), uses: usesByKind(citerOf(folder, style))(record.type), ...as, ...beside });

/** Titles in another case; which words are names, the records tell. */
export function casesOf({
  titles,
  records,
  to,
  keep,
}: {
  titles: { title: string; language?: string | undefined }[];
  records: SourceRecord[];
  to: TitleCasing;
  keep: string[];
}): string[] {
  const { isProper } = amongOf(records);
  return titles.map(({ title, language }) => inCase(title, to, { isProper, english: englishWords(), keep, language }));
}
