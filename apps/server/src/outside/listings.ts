/** Addresses that list works, as a watch looks at them: a feed, a page, a repository of which only what changed is asked for. */
import { oaiAddress, type Harvested, type ListingKind, type OutsideEntry } from '@pandecta/core/catalogues';
import { counted } from '@pandecta/core/wording';
import { Refusal } from '../errors.ts';
import type { Actor } from '../access/principal.ts';
import type { Services } from '../services.ts';
import { Unreachable } from '../fetching/fetch.ts';
import { politely } from '../fetching/politely.ts';
import { enter, keep, MOST_HITS } from './search.ts';

export interface Listing {
  id: string;
  name: string;
  kind: ListingKind;
  address: string;
  /** From when on a repository is asked, by its own clock. */
  from?: string | undefined;
}

export function refuseAddress(address: string): void {
  try {
    if (/^https?:$/.test(new URL(address).protocol)) return;
  } catch {
    // Told below.
  }
  throw new Refusal('invalid', 'the address is none that begins with http:// or https://');
}

/** Looks at it, and notes what is there as a search of its own. @returns the search, and from when on to ask the next time */
export async function lookAt(
  services: Services,
  actor: Actor,
  listing: Listing,
): Promise<{ search: string; from?: string }> {
  const { db } = services;
  const search = await enter(db, actor, { words: listing.address }, [listing], listing.id);
  const begun = performance.now();
  const ms = (): number => Math.round(performance.now() - begun);
  try {
    const { entries, at } = await fetchAll(services, listing);
    const total = entries.length;
    await keep(services, actor.workspaceId, search, listing, entries, {
      state: 'done',
      total,
      fetched: total,
      ms: ms(),
    });
    return { search, ...(at && { from: at }) };
  } catch (error) {
    if (!(error instanceof Unreachable)) throw error;
    await keep(services, actor.workspaceId, search, listing, [], { state: 'failed', says: error.message, ms: ms() });
    return { search };
  }
}

/** All there is: a repository gives it in shares, each with a token for the next. */
async function fetchAll(
  services: Services,
  { kind, address, from }: Listing,
): Promise<Omit<Harvested, 'token' | 'deleted'>> {
  const entries: OutsideEntry[] = [];
  let first: string | undefined;
  let token: string | undefined;
  do {
    const at = kind === 'oai' ? oaiAddress(address, { ...(from && { from }), ...(token && { token }) }) : address;
    const share = await readOne(services, kind, at);
    entries.push(...share.entries);
    first ??= share.at;
    // One that gives the same token for ever would be asked for ever.
    token = share.token === token ? undefined : share.token;
  } while (token && entries.length < MOST_HITS);
  return { entries: entries.slice(0, MOST_HITS), ...(first && { at: first }) };
}

async function readOne({ fetcher, workers }: Services, kind: ListingKind, address: string): Promise<Harvested> {
  const { text } = await politely(fetcher, address, {});
  try {
    return await workers.run('readListing', { kind, text, address });
  } catch (error) {
    throw new Unreachable(`What it answers cannot be read: ${(error as Error).message}`, false);
  }
}

/** What an address lists, before it is watched: "12 works, the first “Silt”". */
export async function tryListing(
  services: Services,
  kind: ListingKind,
  address: string,
): Promise<{ answered: boolean; says: string }> {
  refuseAddress(address);
  try {
    const { entries } = await readOne(services, kind, kind === 'oai' ? oaiAddress(address) : address);
    const first = entries[0]?.record.title;
    if (!first) return { answered: false, says: 'It lists no works.' };
    return {
      answered: true,
      says: `${counted(entries.length, 'work')}, the first “${first}”`,
    };
  } catch (error) {
    if (!(error instanceof Unreachable)) throw error;
    return { answered: false, says: error.message };
  }
}
