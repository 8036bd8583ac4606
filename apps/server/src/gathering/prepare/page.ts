/** A page of the web, fetched or as a browser had it: what it states of itself, or the works of it that were chosen. */
import { readFile } from 'node:fs/promises';
import type { ReadPage } from '@pandecta/core/pages';
import { Unreachable } from '../../outside/fetch.ts';
import type { PageInput, TypedInput } from '../inputs.ts';
import {
  candidate,
  knownBy,
  message,
  type CameFrom,
  type Candidate,
  type Prepared,
  type Preparing,
} from './candidate.ts';

/** What was read of the page as a source, seen today. */
function candidateOf(index: number, read: ReadPage, origin: CameFrom): Candidate {
  const accessed = { 'date-parts': [new Date().toISOString().slice(0, 10).split('-').map(Number)] };
  const provenance = { ...read.provenance, accessed: { from: 'person' as const, sure: 1 } };
  return candidate(index, { ...read.record, accessed }, provenance, { origin, subjects: read.subjects });
}

/** A link: the page is fetched and read; where it cannot be, the address waits in the intake. */
export async function prepareLink({ services, index }: Preparing, input: TypedInput): Promise<Prepared> {
  const address = input.part.value ?? input.part.text;
  const came = input.part.text;
  try {
    const page = await services.fetcher.get(address);
    if (page.status >= 400)
      throw new Unreachable(`${new URL(address).host} answered ${page.status}`, page.status < 500);
    const read = await services.workers.run('readPage', { html: page.text, address: page.address });
    const one = candidateOf(index, read, { came, spans: [], found: { address: page.address } });
    return { input, format: 'a page', messages: [], candidates: [one] };
  } catch (error) {
    if (!(error instanceof Unreachable)) throw error;
    const record = { type: 'webpage' as const, URL: address };
    const one = candidate(index, record, knownBy(record, 'person', 1), {
      origin: { came, spans: [], lookedUp: error.refused ? 'not found' : 'silent' },
    });
    const says = message(input, 'page-unreachable', error.message, 'the address is kept');
    return { input, format: 'a link', messages: [says], candidates: [one] };
  }
}

export async function preparePage({ services, index }: Preparing, input: PageInput): Promise<Prepared> {
  const { address, sha256, items } = input.page;
  const html = await readFile(services.storage.path(sha256), 'utf8');
  const read = await services.workers.run('readPage', { html, address });
  const origin = { found: { address } };
  const chosen = (items ?? []).flatMap((i) => read.items[i] ?? []);
  const candidates = chosen.length
    ? chosen.map((record) => candidate(index, record, knownBy(record, 'stated on the page', 0.85), { origin }))
    : [candidateOf(index, read, origin)];
  return { input, format: 'a page', messages: [], candidates };
}
