/** A link: the page is fetched and read; where it cannot be, the address waits in the intake. */
import type { SourceRecord } from '@pandecta/core/source';
import { Unreachable } from '../../outside/fetch.ts';
import type { TypedInput } from '../inputs.ts';
import { candidate, knownBy, message, type Prepared } from './candidate.ts';
import type { Preparing } from './index.ts';

export async function prepareLink({ services, index }: Preparing, input: TypedInput): Promise<Prepared> {
  const address = input.part.value ?? input.part.text;
  const today = new Date().toISOString().slice(0, 10).split('-').map(Number);
  const came = input.part.text;
  try {
    const page = await services.fetcher.get(address);
    if (page.status >= 400)
      throw new Unreachable(`${new URL(address).host} answered ${page.status}`, page.status < 500);
    const read = await services.workers.run('readPage', { html: page.text, address: page.address });
    const record: SourceRecord = { ...read.record, accessed: { 'date-parts': [today] } };
    const provenance = { ...read.provenance, accessed: { from: 'person' as const, sure: 1 } };
    const origin = { came, spans: [], found: { address: page.address } };
    return {
      input,
      format: 'a page',
      messages: [],
      candidates: [candidate(index, record, provenance, { origin, subjects: read.subjects })],
    };
  } catch (error) {
    if (!(error instanceof Unreachable)) throw error;
    const record: SourceRecord = { type: 'webpage', URL: address };
    const one = candidate(index, record, knownBy(record, 'person', 1), {
      origin: { came, spans: [], lookedUp: error.refused ? 'not found' : 'silent' },
    });
    return {
      input,
      format: 'a link',
      messages: [message(input, 'page-unreachable', error.message, 'the address is kept')],
      candidates: [one],
    };
  }
}
