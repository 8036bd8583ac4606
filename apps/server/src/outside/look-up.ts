/** Identifiers other than DOIs are looked up in the catalogues of the workspace that can be asked by them. */
import type { PartKind } from '@pandecta/core/door';
import type { Found } from '../gathering/tables.ts';
import type { LookedUp } from '../gathering/prepare/registry.ts';
import type { Services } from '../services.ts';

export async function lookUpInCatalogues(
  _services: Pick<Services, 'db' | 'fetcher'>,
  _workspaceId: string,
  _kind: PartKind,
  _value: string,
): Promise<LookedUp & { found?: Found }> {
  return { state: 'silent' };
}
