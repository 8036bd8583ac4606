/** The outside catalogues of a workspace: which there are, and asking one of them politely. */
import { and, eq, sql } from 'drizzle-orm';
import PQueue from 'p-queue';
import { v7 as uuidv7 } from 'uuid';
import type { Catalogue, CatalogueList, NewCatalogue, Tried, TryCatalogue } from '@pandecta/contract';
import { PROTOCOLS, type OutsideAnswer, type OutsideQuestion, type ProtocolName } from '@pandecta/core/catalogues';
import type { Db } from '../database/connect.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import type { Services } from '../services.ts';
import { Unreachable } from './fetch.ts';
import { catalogues } from './tables.ts';

/** How many of its last errors are kept. */
const ERRORS_KEPT = 5;
const PATIENCE_MS = 15_000;
const MOST_BYTES = 20 * 1024 ** 2;

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
      says: `${total.toLocaleString('en')} ${total === 1 ? 'record' : 'records'} for “${word}”`,
    };
  } catch (error) {
    return { answered: false, says: (error as Error).message };
  }
}

/** Two questions at a time and no more than four a second for each host, whoever asks. */
const lines = new Map<string, PQueue>();
const lineOf = (host: string): PQueue => {
  const known = lines.get(host);
  if (known) return known;
  const line = new PQueue({ concurrency: 2, interval: 1000, intervalCap: 4 });
  lines.set(host, line);
  return line;
};
/** Until when a host asked to be left alone (RFC 9110, 10.2.3). */
const restUntil = new Map<string, number>();

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
  const { host } = new URL(at);
  const rest = (restUntil.get(host) ?? 0) - Date.now();
  if (rest > 0) throw new Unreachable(`It asked to be left alone for ${Math.ceil(rest / 1000)} s more`, false);
  return lineOf(host).add(async () => {
    const reply = await fetcher.get(at, {
      accept: spoken.accept,
      most: MOST_BYTES,
      withinMs: PATIENCE_MS,
      trusted: true,
    });
    if (reply.status === 429 || reply.status === 503) {
      const seconds = waitOf(reply.headers.get('retry-after'));
      restUntil.set(host, Date.now() + seconds * 1000);
      throw new Unreachable(`It asks to wait ${seconds} s before the next question`, false);
    }
    if (reply.status >= 400) throw new Unreachable(`It answered with the error ${reply.status}`, reply.status < 500);
    try {
      return await workers.run('readAnswer', { protocol, text: reply.text });
    } catch (error) {
      throw new Unreachable(`Its answer cannot be read as ${spoken.name}: ${(error as Error).message}`, false);
    }
  });
}

/** Seconds, or a date; a minute where it is neither, an hour at most. */
function waitOf(text: string | null): number {
  const seconds = /^\d+$/.test(text ?? '') ? Number(text) : Math.round((Date.parse(text ?? '') - Date.now()) / 1000);
  return Math.min(3600, Math.max(1, Number.isFinite(seconds) ? seconds : 60));
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
