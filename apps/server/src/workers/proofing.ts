/** All records of a workspace, looked over. */
import type { MessagePort } from 'node:worker_threads';
import { englishWords } from '@pandecta/core/english';
import { amongOf, inCase, proof, usesByKind, type Finding, type TitleCasing, type View } from '@pandecta/core/proofing';
import type { SourceRecord } from '@pandecta/core/source';
import { citerOf } from './citers.ts';
import { receiveRecords } from './records.ts';

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

/** All records of a workspace, which come through the port; with the last of them comes what stands beside some, by their places. */
export async function proofAll({
  port,
  style,
  folder,
  ...as
}: As & { port: MessagePort }): Promise<(Finding & { at: number })[]> {
  const { records, more } = await receiveRecords<Map<number, Beside>>(port);
  port.close();
  const among = amongOf(records);
  const usesFor = usesByKind(citerOf(folder, style));
  const english = englishWords();
  const out: (Finding & { at: number })[] = [];
  let at = 0;
  for (const record of records) {
    for (const f of proof({ record, among, english, uses: usesFor(record.type), ...as, ...more.get(at) }))
      out.push({ at, ...f });
    at += 1;
  }
  return out;
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

/** Titles in another case; which words are names, the records tell that come through the port. */
export async function casesOf({
  port,
  titles,
  to,
  keep,
}: {
  port: MessagePort;
  titles: { title: string; language?: string | undefined }[];
  to: TitleCasing;
  keep: string[];
}): Promise<string[]> {
  const { records } = await receiveRecords(port);
  port.close();
  const { isProper } = amongOf(records);
  return titles.map(({ title, language }) => inCase(title, to, { isProper, english: englishWords(), keep, language }));
}
