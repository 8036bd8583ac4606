/** The senses of a workspace's marks: added, altered, retired, merged, put in order. */
import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Changed, NewSense, SenseInfo } from '@pandecta/contract';
import type { Entry, EntryChange } from '@pandecta/core/changes';
import { FIRST_SENSES, type Sense } from '@pandecta/core/marks';
import { counted } from '@pandecta/core/wording';
import type { Acting, Actor } from '../access/principal.ts';
import { idsOf, type Db } from '../database/connect.ts';
import { number, one, rows, text } from '../database/read.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import type { ListsOf } from '../lists/kinds.ts';
import { entriesOf, entryOf, type Found } from '../lists/store.ts';
import { entries } from '../lists/tables.ts';
import { writeEntries, writeEntry } from '../lists/write.ts';
import type { Services } from '../services.ts';
import { markFacets } from './facets.ts';

type SenseValue = Entry & Omit<Sense, 'id'>;

export const senseLists: ListsOf<'sense'> = {
  sense: {
    /** Where a sense counts as another, or no longer does, its sources are narrowed by the other. */
    async follows(tx, workspaceId, sense) {
      const found = await rows(
        tx,
        { id: text() },
        sql`select distinct source_id as id from marks where workspace_id = ${workspaceId} and sense_id = ${sense}::uuid and present`,
      );
      return { some: [{ of: markFacets, sources: idsOf(found) }] };
    },
  },
};

/** Those a new workspace begins with, written beside whatever made it. */
export async function writeFirstSenses(tx: Db, workspaceId: string): Promise<string[]> {
  const made = FIRST_SENSES.map((sense) => ({
    id: uuidv7(),
    list: 'sense' as const,
    value: { ...sense, owner: null },
  }));
  await within(tx, workspaceId).insert(entries, ...made);
  return made.map((m) => m.id);
}

export async function sensesOf(db: Db, viewer: Actor): Promise<SenseInfo[]> {
  const found = await entriesOf<SenseValue>(db, viewer, 'sense');
  return found
    .map(({ id, value: { owner: _, ...sense } }) => ({ ...sense, id }) as SenseInfo)
    .sort((a, b) => (a.key ?? 10) - (b.key ?? 10));
}

export async function makeSense(services: Services, caller: Acting, input: NewSense): Promise<Changed> {
  return writeEntry(services, caller, 'sense', uuidv7(), null, await valueOf(services, caller, input));
}

export async function editSense(services: Services, caller: Acting, id: string, input: NewSense): Promise<Changed> {
  const before = await findSense(services, caller, id);
  return writeEntry(services, caller, 'sense', id, before, await valueOf(services, caller, input, { id, before }));
}

/** @throws Refusal where some mark has it: of those in the bin too, which may come back */
export async function removeSense(services: Services, caller: Acting, id: string): Promise<Changed> {
  const before = await findSense(services, caller, id);
  const used = await one(
    services.db,
    { count: number },
    sql`select count(*)::int as count from marks where workspace_id = ${caller.actor.workspaceId} and sense_id = ${id}::uuid`,
  );
  if (used!.count) throw new Refusal('sense_used', before.name, counted(used!.count, 'mark'));
  return writeEntry(services, caller, 'sense', id, before, null);
}

/** Marks keep the sense they were given; from now on it counts as the other. What was merged into it before goes along. */
export async function mergeSense(services: Services, caller: Acting, id: string, into: string): Promise<Changed> {
  if (id === into) throw new Refusal('invalid', 'a sense is merged into another one');
  const [one, other] = [await findSense(services, caller, id), await findSense(services, caller, into)];
  if (other.into) throw new Refusal('invalid', `“${other.name}” was itself merged into another sense`);
  const all = await entriesOf<SenseValue>(services.db, caller.actor, 'sense');
  const going = all.filter((s) => s.id === id || s.value.into === id);
  const says = `Merged the sense “${one.name}” into “${other.name}”`;
  return writeEntries(
    services,
    caller,
    says,
    going.map((s) => changed(s, { into, key: null })),
  );
}

/** By their places those that are offered get their keys. @throws Refusal where some are left out */
export async function orderSenses(services: Services, caller: Acting, ids: string[]): Promise<Changed> {
  const all = await entriesOf<SenseValue>(services.db, caller.actor, 'sense');
  const offered = all.filter((s) => !s.value.retired && !s.value.into);
  if (ids.length !== offered.length || offered.some((s) => !ids.includes(s.id)))
    throw new Refusal('invalid', 'each sense that is offered has one place in the order');
  const changes = offered.flatMap((s) => {
    const place = ids.indexOf(s.id) + 1;
    const key = place <= 9 ? place : null;
    return key === s.value.key ? [] : [changed(s, { key })];
  });
  return writeEntries(services, caller, 'Ordered the senses of marks', changes);
}

const changed = ({ id, value }: Found<SenseValue>, to: Partial<SenseValue>): EntryChange => ({
  do: 'entry',
  list: 'sense',
  entry: id,
  value: { before: value, after: { ...value, ...to } },
});

async function findSense({ db }: Services, { actor }: Acting, id: string): Promise<SenseValue> {
  const found = await entryOf<SenseValue>(db, actor, 'sense', id);
  if (!found) throw new Refusal('no_such_sense');
  return found;
}

/** @throws Refusal where another sense has the name or the key already */
async function valueOf(
  { db }: Services,
  { actor }: Acting,
  input: NewSense,
  of?: { id: string; before: SenseValue },
): Promise<SenseValue> {
  const name = input.name.trim();
  if (!name) throw new Refusal('invalid', 'a sense needs a name');
  const others = (await entriesOf<SenseValue>(db, actor, 'sense')).filter((o) => o.id !== of?.id);
  if (others.some((o) => o.value.name.toLowerCase() === name.toLowerCase()))
    throw new Refusal('invalid', `there is a sense “${name}” already`);
  const retired = input.retired ?? false;
  const key = retired ? null : input.key;
  const holder = key && others.find((o) => o.value.key === key);
  if (holder) throw new Refusal('invalid', `the key ${key} chooses “${holder.value.name}” already`);
  const says = input.says?.trim() ?? '';
  return { name, owner: null, key, colour: input.colour, says, retired, into: of?.before.into ?? null };
}
