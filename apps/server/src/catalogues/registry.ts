/** Asks the registry for the record of a DOI, by content negotiation (DOI Handbook). */
import { readItem } from '@pandecta/core/formats';
import { normaliseDoi } from '@pandecta/core/identifiers';
import type { SourceRecord } from '@pandecta/core/source';
import type { Services } from '../services.ts';

export interface LookedUp {
  /** `silent`: nobody answered, or there is nobody to ask. */
  state: 'found' | 'not found' | 'silent';
  record?: SourceRecord;
  /** Who refused or was silent, and why; in a sentence. */
  why?: string;
}

const PATIENCE_MS = 4000;

export async function lookUpDoi({ config }: Pick<Services, 'config'>, doi: string): Promise<LookedUp> {
  if (!config.registryUrl) return { state: 'silent', why: 'This server has no DOI registry to ask.' };
  try {
    const url = `${config.registryUrl}/${doi.split('/').map(encodeURIComponent).join('/')}`;
    const answer = await fetch(url, {
      headers: { accept: 'application/vnd.citationstyles.csl+json' },
      signal: AbortSignal.timeout(PATIENCE_MS),
    });
    if (answer.status === 404) return { state: 'not found' };
    if (!answer.ok) return { state: 'silent', why: `The registry of DOIs answered with error ${answer.status}.` };
    const { record } = readItem((await answer.json()) as Record<string, unknown>, { line: 0, column: 0 }, []);
    return normaliseDoi(record.DOI ?? '') === normaliseDoi(doi) ? { state: 'found', record } : { state: 'not found' };
  } catch (error) {
    const late = error instanceof Error && error.name === 'TimeoutError';
    const why = `The registry of DOIs ${late ? `did not answer within ${PATIENCE_MS / 1000} seconds` : 'could not be reached'}.`;
    return { state: 'silent', why };
  }
}
