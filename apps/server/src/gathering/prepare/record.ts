/** A record chosen from what catalogues answered, or from what a page lists; with its full text, where it is said to be had. */
import { fetchPdf } from '../../files/fetch-pdf.ts';
import { Unreachable } from '../../fetching/fetch.ts';
import type { RecordInput } from '../inputs.ts';
import { candidate, knownBy, message, type Prepared, type Preparing } from './candidate.ts';

export async function prepareRecord({ services, workspace, index }: Preparing, input: RecordInput): Promise<Prepared> {
  const { record, subjects, found } = input;
  const messages: Prepared['messages'] = [];
  const beside = found.pdf
    ? await fetchPdf(services, workspace, found.pdf).catch((error: unknown) => {
        if (!(error instanceof Unreachable)) throw error;
        messages.push(
          message(input, 'no-full-text', `Its PDF could not be fetched: ${error.message}`, 'kept without it', 'info'),
        );
      })
    : undefined;
  const from = found.database ? ('catalogue' as const) : ('stated on the page' as const);
  const one = candidate(index, record, knownBy(record, from, found.database ? 0.9 : 0.85), {
    subjects,
    origin: { found },
    ...(beside && { beside: [beside] }),
  });
  return { input, format: found.database ?? 'a page', messages, candidates: [one] };
}
