/**
 * Looks a record up: a DOI at the registry; anything else in the workspace's catalogues, all at once, by its identifier, by
 * where it stands, or by its title and people.
 */
import { askingFor, type Asking } from '@pandecta/core/catalogues';
import { bestOf } from '@pandecta/core/matching';
import type { SourceRecord } from '@pandecta/core/source';
import type { Services } from '../services.ts';
import { ask, listCatalogues } from './catalogues.ts';
import { Unreachable } from '../fetching/fetch.ts';
import { lookUpDoi, type LookedUp } from './registry.ts';

/** Where outside a source was found. */
export interface Found {
  database?: string;
  accession?: string;
  query?: string;
  address?: string;
  /** Where its full text is said to be. */
  pdf?: string;
}

/** `alike`: by title and people, not by an identifier or a place; what it has that is not here may be taken. */
export type LookedUpAnywhere = LookedUp & {
  found?: Found;
  alike?: true;
  /** It is what a page states of itself. */
  states?: true;
};

const AT_ONCE = 20;

const NO_CATALOGUES = 'This workspace has no catalogues. A steward can add one in Gather, under Search outside.';

export async function lookUp(services: Services, workspaceId: string, record: SourceRecord): Promise<LookedUpAnywhere> {
  if (record.DOI) return lookUpDoi(services, record.DOI);
  if (record.URL && !record.title) return visit(services, record.URL);
  const asking = askingFor(record);
  return asking ? inCatalogues(services, workspaceId, asking) : { state: 'not found' };
}

/** A link that could not be visited when it came: what its page states of itself. */
async function visit({ fetcher, workers }: Services, address: string): Promise<LookedUpAnywhere> {
  try {
    const page = await fetcher.get(address);
    if (page.status >= 500) return { state: 'silent', why: `The page answered with error ${page.status}.` };
    if (page.status >= 400) return { state: 'not found' };
    const { record } = await workers.run('readPage', { html: page.text, address: page.address });
    return { state: 'found', record, found: { address: page.address }, states: true };
  } catch (error) {
    if (!(error instanceof Unreachable)) throw error;
    return { state: error.refused ? 'not found' : 'silent', why: error.message };
  }
}

async function inCatalogues(services: Services, workspaceId: string, asking: Asking): Promise<LookedUpAnywhere> {
  const { catalogues } = await listCatalogues(services.db, workspaceId);
  if (!catalogues.length) return { state: 'silent', why: NO_CATALOGUES };
  const answers = await Promise.allSettled(
    catalogues.map(async (c) => {
      const { entries } = await ask(services, c, asking.question, 0, AT_ONCE);
      return entries.filter((e) => asking.is(e.record)).map((e) => ({ ...e, database: c.name }));
    }),
  );
  const found = answers.flatMap((a) => (a.status === 'fulfilled' ? a.value : []));
  const [first] = found;
  if (!first) {
    const silent = answers.flatMap((a, i) =>
      a.status === 'rejected' ? [`${catalogues[i]!.name}: ${(a.reason as Error).message}`] : [],
    );
    const state = silent.length < answers.length ? 'not found' : 'silent';
    return { state, ...(silent.length && { why: silent.join('; ') }) };
  }
  const record = bestOf(found.map((e) => e.record));
  return {
    state: 'found',
    record,
    found: { database: first.database, accession: first.accession },
    ...(!asking.identified && { alike: true as const }),
  };
}
