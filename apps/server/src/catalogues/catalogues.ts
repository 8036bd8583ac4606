/** The outside catalogues of a workspace: which there are, and asking one of them politely. */
import { and, eq, sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Catalogue, CatalogueList, NewCatalogue, Tried, TryCatalogue } from '@pandecta/contract';
import { PROTOCOLS, type OutsideAnswer, type OutsideQuestion, type ProtocolName } from '@pandecta/core/catalogues';
import { counted } from '@pandecta/core/wording';
import type { Db } from '../database/connect.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import type { Services } from '../services.ts';
import { Unreachable } from '../fetching/fetch.ts';
import { politely } from '../fetching/politely.ts';
import { catalogues } from './tables.ts';

/** How many of its last errors are kept. */
const ERRORS_KEPT = 5;

const COLUMNS = {
  id: catalogues.id,
  name: catalogues.name,
  protocol: catalogues.protocol,
  address: catalogues.address,
  errors: catalogues.errors,
};

export async function listCatalogues(db: Db, workspaceId: string): Promise<CatalogueList> {
  const by = [sql`${catalogues.name} collate "pandecta"`];
  return { catalogues: await within(db, workspaceId).all(catalogues, COLUMNS, sql`${catalogues.present}`, { by }) };
}

/** @throws Refusal where one of them is not there */
export async function findCatalogues(db: Db, workspaceId: string, ids: string[]): Promise<Catalogue[]> {
  const all = new Map((await listCatalogues(db, workspaceId)).catalogues.map((c) => [c.id, c]));
  return ids.map((id) => {
    const one = all.get(id);
    if (!one) throw new Refusal('no_such_catalogue');
    return one;
  });
}

export async function addCatalogue(db: Db, workspaceId: string, made: NewCatalogue): Promise<CatalogueList> {
  refuseWrong(made);
  await within(db, workspaceId).insert(catalogues, { id: uuidv7(), ...made });
  return listCatalogues(db, workspaceId);
}

export async function removeCatalogue(db: Db, workspaceId: string, id: string): Promise<CatalogueList> {
  const gone = await within(db, workspaceId)
    .update(catalogues, { present: false }, and(eq(catalogues.id, id), sql`${catalogues.present}`))
    .returning({ id: catalogues.id });
  if (!gone.length) throw new Refusal('no_such_catalogue');
  return listCatalogues(db, workspaceId);
}

function refuseWrong({ protocol, address }: { protocol: ProtocolName; address: string }): void {
  try {
    const { protocol: scheme } = new URL(address.replace(/\{\w+\??\}/g, 'x'));
    if (!/^https?:$/.test(scheme)) throw new Refusal('invalid', 'the address begins with http:// or https://');
  } catch (error) {
    throw error instanceof Refusal ? error : new Refusal('invalid', 'the address cannot be read');
  }
  if (protocol === 'opensearch' && !address.includes('{searchTerms}'))
    throw new Refusal('invalid', 'the address of an OpenSearch catalogue has {searchTerms} in it');
}

/** Asks a catalogue for a word before it is added: "42 records for “test”". */
export async function tryCatalogue(services: Services, { word, ...rest }: TryCatalogue): Promise<Tried> {
  refuseWrong(rest);
  try {
    const { total, refused } = await ask(services, rest, { words: word }, 0, 1);
    if (refused) return { answered: false, says: `It answered, but not this question: ${refused}` };
    return {
      answered: true,
      says: `${counted(total, 'record')} for “${word}”`,
    };
  } catch (error) {
    return { answered: false, says: (error as Error).message };
  }
}

/** What is needed to ask and to read what is answered. */
export type Outward = Pick<Services, 'fetcher' | 'workers'>;

/**
 * @throws Unreachable with the reason, in a sentence
 */
export async function ask(
  { fetcher, workers }: Outward,
  { protocol, address }: { protocol: ProtocolName; address: string },
  question: OutsideQuestion,
  from: number,
  count: number,
): Promise<OutsideAnswer> {
  const spoken = PROTOCOLS[protocol];
  const at = spoken.address(address, question, from, count);
  const { text } = await politely(fetcher, at, { accept: spoken.accept, catalogue: true });
  try {
    return await workers.run('readAnswer', { protocol, text });
  } catch (error) {
    throw new Unreachable(`Its answer cannot be read as ${spoken.name}: ${(error as Error).message}`, false);
  }
}

export async function noteError(db: Db, workspaceId: string, id: string, says: string): Promise<void> {
  const entry = JSON.stringify([{ at: new Date().toISOString(), says }]);
  await within(db, workspaceId).update(
    catalogues,
    {
      errors: sql`(select coalesce(jsonb_agg(e order by n), '[]') from (
        select e, n from jsonb_array_elements(${entry}::jsonb || ${catalogues.errors}) with ordinality as x(e, n) order by n limit ${ERRORS_KEPT}) x)`,
    },
    eq(catalogues.id, id),
  );
}
