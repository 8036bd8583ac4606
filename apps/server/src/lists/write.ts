/** Writing an entry of a short list: all of it at once, against what stands there. */
import type { Changed } from '@pandecta/contract';
import type { Entry, List } from '@pandecta/core/changes';
import { may } from '../access/permissions.ts';
import { commit, type Needed } from '../changes/service.ts';
import { Refusal } from '../errors.ts';
import type { Acting } from '../http/authorise.ts';

/**
 * @param before what stands there now, or null
 * @throws Refusal where what is everyone's, or is to be, is altered by one who may not arrange
 */
export async function writeEntry(
  services: Needed,
  { actor, workspace }: Acting,
  list: List,
  entry: string,
  before: Entry | null,
  after: Entry | null,
): Promise<Changed> {
  const everyones = [before, after].some((v) => v && !v.owner);
  if (everyones && !may(workspace.role, 'arrange')) throw new Refusal('not_allowed');
  const { changeId, says } = await commit(services, actor, { do: 'entry', list, entry, value: { before, after } });
  return { changeId, says, ...(after && { id: entry }) };
}
