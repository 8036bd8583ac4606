/** What the workspace says of its sources: labels, each with what it means, and ratings. */
import { v7 as uuidv7 } from 'uuid';
import type { Changed, LabelList, NewLabel } from '@pandecta/contract';
import { firstOf } from '@pandecta/core/text';
import { answer } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import { Refusal } from '../errors.ts';
import type { Acting } from '../access/principal.ts';
import { entriesOf, entryOf } from '../lists/store.ts';
import { writeEntry } from '../lists/write.ts';
import type { Services } from '../services.ts';
import { ratingsOf, reasonsOf, type LabelValue } from './store.ts';

export async function labelList({ db }: Services, { actor }: Acting): Promise<LabelList> {
  const found = await entriesOf<LabelValue>(db, actor, 'label');
  return { labels: found.map(({ id, value: { name, letter, tint, says } }) => ({ id, name, letter, tint, says })) };
}

export async function makeLabel(services: Services, caller: Acting, input: NewLabel): Promise<Changed> {
  return writeEntry(services, caller, 'label', uuidv7(), null, await valueOf(services, caller, input));
}

export async function editLabel(services: Services, caller: Acting, id: string, input: NewLabel): Promise<Changed> {
  const before = await findLabel(services, caller, id);
  return writeEntry(services, caller, 'label', id, before, await valueOf(services, caller, input, id));
}

export async function removeLabel(services: Services, caller: Acting, id: string): Promise<Changed> {
  return writeEntry(services, caller, 'label', id, await findLabel(services, caller, id), null);
}

export async function labelSources(
  services: Services,
  caller: Acting,
  sources: string[],
  label: string,
  present: boolean,
): Promise<Changed> {
  const { name } = await findLabel(services, caller, label);
  return answer(await commit(services, caller.actor, { do: 'labelling', label, name, sources, present }));
}

export async function rateSources(
  services: Services,
  caller: Acting,
  sources: string[],
  rating: number | null,
): Promise<Changed> {
  const before = await ratingsOf(services.db, caller.actor.workspaceId, sources);
  const ratings = Object.fromEntries([...before].map(([id, was]) => [id, { before: was, after: rating }]));
  return answer(await commit(services, caller.actor, { do: 'rate', ratings }));
}

export async function recheckSources(
  services: Services,
  caller: Acting,
  sources: string[],
  reason: string | null,
): Promise<Changed> {
  const before = await reasonsOf(services.db, caller.actor.workspaceId, sources);
  const reasons = Object.fromEntries(
    [...before].map(([id, was]) => [id, { before: was, after: reason?.trim() ?? null }]),
  );
  return answer(await commit(services, caller.actor, { do: 'recheck', reasons }));
}

async function findLabel({ db }: Services, { actor }: Acting, id: string): Promise<LabelValue> {
  const found = await entryOf<LabelValue>(db, actor, 'label', id);
  if (!found) throw new Refusal('no_such_label');
  return found;
}

/** @throws Refusal where another label has the name already */
async function valueOf({ db }: Services, { actor }: Acting, input: NewLabel, id?: string): Promise<LabelValue> {
  const name = input.name.trim();
  if (!name) throw new Refusal('invalid', 'a label needs a name');
  const others = await entriesOf<LabelValue>(db, actor, 'label');
  if (others.some((o) => o.id !== id && o.value.name.toLowerCase() === name.toLowerCase()))
    throw new Refusal('invalid', `there is a label “${name}” already`);
  return {
    name,
    owner: null,
    letter: input.letter.trim() || firstOf(name),
    tint: input.tint,
    says: input.says?.trim() ?? '',
  };
}
