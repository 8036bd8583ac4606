/** Identifiers other than DOIs are looked up in the catalogues of the workspace, all at once: the first that knows it. */
import { identifierKeys } from '@pandecta/core/matching';
import type { SourceRecord } from '@pandecta/core/source';
import type { Found } from '../gathering/tables.ts';
import type { LookedUp } from '../gathering/prepare/registry.ts';
import type { Services } from '../services.ts';
import { ask, listCatalogues } from './catalogues.ts';

type Kind = 'isbn' | 'issn' | 'pmid' | 'pmcid';

export async function lookUpInCatalogues(
  { db, fetcher }: Pick<Services, 'db' | 'fetcher'>,
  workspaceId: string,
  kind: Kind,
  value: string,
): Promise<LookedUp & { found?: Found }> {
  const { catalogues } = await listCatalogues(db, workspaceId);
  const answers = await Promise.allSettled(
    catalogues.map(async (c) => ({
      name: c.name,
      answer: await ask(fetcher, c, { words: '', identifier: { kind, value } }, 0, 5),
    })),
  );
  for (const a of answers) {
    if (a.status === 'rejected') continue;
    const entry = a.value.answer.entries.find((e) => has(e.record, kind, value));
    if (entry)
      return { state: 'found', record: entry.record, found: { database: a.value.name, accession: entry.accession } };
  }
  return { state: answers.some((a) => a.status === 'fulfilled') ? 'not found' : 'silent' };
}

/** A catalogue that knows only words may answer with another work. An ISSN is that of a whole journal. */
const has = (record: SourceRecord, kind: Kind, value: string): boolean =>
  kind !== 'issn' &&
  identifierKeys(record).some((key) => key === `${kind}:${value.toLowerCase()}` || key.startsWith(`${kind}:${value}:`));
