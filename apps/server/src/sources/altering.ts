/** One field of many sources altered in one way: seen before it is done, then done as one change. */
import { MOST_ALTERED, type AlterField, type AlterPreview, type Changed } from '@pandecta/contract';
import { countSources, type Change } from '@pandecta/core/changes';
import { variableInWords, type FieldValue, type SourceRecord } from '@pandecta/core/source';
import { answer } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import { Refusal } from '../errors.ts';
import type { Acting } from '../http/authorise.ts';
import { chosenIds } from '../searching/chosen.ts';
import type { Services } from '../services.ts';
import { findRecords } from './store.ts';

/** How many are shown before they are altered. */
const SHOWN = 200;

interface Becomes {
  source: string;
  record: SourceRecord;
  before: FieldValue | null;
  after: FieldValue | null;
}

export async function previewAltering(services: Services, caller: Acting, asked: AlterField): Promise<AlterPreview> {
  const { all, same } = await becomes(services, caller, asked);
  return {
    altered: all.length,
    same,
    first: all.slice(0, SHOWN).map(({ source, record, before, after }) => ({
      source,
      title: record.title ?? record['title-short'] ?? 'Untitled',
      before,
      after,
    })),
  };
}

export async function alterSources(services: Services, caller: Acting, asked: AlterField): Promise<Changed> {
  const { all } = await becomes(services, caller, asked);
  if (!all.length) return { changeId: null, says: 'All of them stand so already' };
  const { field } = asked;
  const changes = all.map(({ source, before, after }): Change => ({
    do: 'edit',
    source,
    fields: { [field]: { before: before as never, after: after as never } },
  }));
  const says = `Changed ${variableInWords(field)} in ${countSources(all.length)}`;
  return answer(await commit(services, caller.actor, { do: 'all', says, changes }));
}

/** @throws Refusal where the alteration cannot be, with why */
async function becomes(
  services: Services,
  caller: Acting,
  { field, way, value, find, expression, exactCase, onlyEmpty, ...chosen }: AlterField,
): Promise<{ all: Becomes[]; same: number }> {
  const ids = await chosenIds(services, caller, chosen, MOST_ALTERED);
  const records = await findRecords(services.db, caller.workspace.id, ids);
  const here = ids.flatMap((source) => {
    const record = records.get(source);
    const before = record && ((record as unknown as Record<string, FieldValue>)[field] ?? null);
    return record && before !== undefined ? [{ source, record, before }] : [];
  });
  const alteration = { field, way, value, find, expression, exactCase, onlyEmpty };
  const found = await services.workers.run('altered', { values: here.map((h) => h.before), alteration });
  if ('cannot' in found) throw new Refusal('invalid', found.cannot);
  const all = here.flatMap((h, i): Becomes[] => {
    const after = found.after[i];
    return after === undefined ? [] : [{ ...h, after }];
  });
  return { all, same: here.length - all.length };
}
