/** Looks a record up by the identifier it has: DOIs at the registry, others in the catalogues that can be asked by them. */
import type { SourceRecord } from '@pandecta/core/source';
import { lookUpInCatalogues } from '../../outside/look-up.ts';
import type { Services } from '../../services.ts';
import type { Found } from '../tables.ts';
import { lookUpDoi, type LookedUp } from './registry.ts';

export async function lookUp(
  services: Services,
  workspaceId: string,
  record: SourceRecord,
): Promise<LookedUp & { found?: Found }> {
  if (record.DOI) return lookUpDoi(services, record.DOI);
  if (record.ISBN) return lookUpInCatalogues(services, workspaceId, 'isbn', record.ISBN);
  if (record.PMID) return lookUpInCatalogues(services, workspaceId, 'pmid', record.PMID);
  if (record.PMCID) return lookUpInCatalogues(services, workspaceId, 'pmcid', record.PMCID);
  if (record.ISSN) return lookUpInCatalogues(services, workspaceId, 'issn', record.ISSN);
  return { state: 'not found' };
}
