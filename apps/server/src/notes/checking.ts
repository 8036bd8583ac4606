/** Whether the quotations of a note stand on the pages they name. */
import { sql } from 'drizzle-orm';
import type { CheckedQuotation, CheckedQuotations } from '@pandecta/contract';
import { quotationsIn } from '@pandecta/core/notes';
import { citedPlace } from '@pandecta/core/page-numbers';
import type { Acting } from '../access/principal.ts';
import { number, rows, text, truth } from '../database/read.ts';
import { numbersOf } from '../files/numbers.ts';
import type { Services } from '../services.ts';
import { visibleIds } from '../subjects/visible.ts';
import { findNote } from './store.ts';

const UNKNOWN = { stands: 'unknown' as const, differences: [], asThere: '', elsewhere: null, citedElsewhere: '' };

export async function checkNote(services: Services, { actor }: Acting, id: string): Promise<CheckedQuotations> {
  const { db, workers } = services;
  const { text: doc } = await findNote(db, actor, id);
  const all = quotationsIn(doc).map(({ words, origin }, place) => ({ words, origin, place }));
  const named = [...new Set(all.flatMap((q) => q.origin?.source ?? []))];
  const sources = new Set(await visibleIds(db, actor, 'source', named));
  const byFile = new Map<string, typeof all>();
  for (const q of all) {
    const { file, page, source } = q.origin ?? {};
    if (!file || !page || !sources.has(source!)) continue;
    const list = byFile.get(file) ?? [];
    byFile.set(file, list);
    list.push(q);
  }
  const out = new Map<number, CheckedQuotation>(all.map(({ place }) => [place, { place, ...UNKNOWN }]));
  for (const [file, of] of byFile) {
    const pages = await rows(
      db,
      { number, text: text(), recognised: truth },
      sql`select p.number, p.text, p.confidence is not null as recognised from pages p
        join source_files sf on sf.workspace_id = p.workspace_id and sf.file_id = p.file_id and sf.source_id = ${of[0]!.origin!.source}
        where p.workspace_id = ${actor.workspaceId} and p.file_id = ${file} order by p.number`,
    );
    if (!pages.some((p) => p.text.trim())) continue;
    const asked = of.map((q) => ({ words: q.words, page: q.origin!.page! }));
    const checked = await workers.run('checkQuotations', { asked, pages });
    const here = { sourceId: of[0]!.origin!.source, fileId: file };
    const numbers = (await numbersOf(db, actor.workspaceId, [here]))(here);
    of.forEach(({ place }, i) => {
      const { elsewhere, ...rest } = checked[i]!;
      out.set(place, {
        place,
        ...rest,
        elsewhere,
        citedElsewhere: elsewhere ? citedPlace(numbers, elsewhere, undefined) : '',
      });
    });
  }
  return { quotations: [...out.values()] };
}
