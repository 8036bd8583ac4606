/** Looks a record up by the identifier it has: DOIs at the registry, others in the workspace's catalogues, all at once. */
import { identifierKeys } from '@pandecta/core/matching';
import type { SourceRecord } from '@pandecta/core/source';
import type { Found } from '../gathering/inputs.ts';
import type { Services } from '../services.ts';
import { ask, listCatalogues } from './catalogues.ts';
import { lookUpDoi, type LookedUp } from './registry.ts';

export type LookedUpAnywhere = LookedUp & { found?: Found };

const BY_CATALOGUE = { ISBN: 'isbn', PMID: 'pmid', PMCID: 'pmcid', ISSN: 'issn' } as const;

export async function lookUp(services: Services, workspaceId: string, record: SourceRecord): Promise<LookedUpAnywhere> {
  if (record.DOI) return lookUpDoi(services, record.DOI);
  for (const [field, kind] of Object.entries(BY_CATALOGUE)) {
    const value = record[field as keyof typeof BY_CATALOGUE];
    if (value) return inCatalogues(services, workspaceId, kind, value);
  }
  return { state: 'not found' };
}

type Kind = (typeof BY_CATALOGUE)[keyof typeof BY_CATALOGUE];

async function inCatalogues(
  services: Services,
  workspaceId: string,
  kind: Kind,
  value: string,
): Promise<LookedUpAnywhere> {
  const { catalogues } = await listCatalogues(services.db, workspaceId);
  const answers = await Promise.allSettled(
    catalogues.map(async (c) => ({
      name: c.name,
      answer: await ask(services, c, { words: '', identifier: { kind, value } }, 0, 5),
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
