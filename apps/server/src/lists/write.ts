/** Writing an entry of a short list: all of it at once, against what stands there. */
import type { Changed, Role } from '@pandecta/contract';
import type { Entry, EntryChange, List } from '@pandecta/core/changes';
import { may } from '../access/permissions.ts';
import { commit, type Needed } from '../changes/service.ts';
import { Refusal } from '../errors.ts';
import type { Acting } from '../access/principal.ts';

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
  refuseOthers(workspace.role, [before, after]);
  const { changeId, says } = await commit(services, actor, { do: 'entry', list, entry, value: { before, after } });
  return { changeId, says, ...(after && { id: entry }) };
}

/**
 * Several at once, as one change that says what it is.
 * @throws Refusal as of one
 */
export async function writeEntries(
  services: Needed,
  { actor, workspace }: Acting,
  says: string,
  changes: EntryChange[],
): Promise<Changed> {
  refuseOthers(
    workspace.role,
    changes.flatMap(({ value }) => [value.before, value.after]),
  );
  const done = await commit(services, actor, { do: 'all', says, changes });
  return { changeId: done.changeId, says: done.says };
}

function refuseOthers(role: Role, values: (Entry | null)[]): void {
  if (values.some((v) => v && !v.owner) && !may(role, 'arrange')) throw new Refusal('not_allowed');
}
