/** Outlines: notes in an order made by hand, each written as a whole. */
import { v7 as uuidv7 } from 'uuid';
import type { Changed, NewOutline, OutlineInfo, OutlineNode } from '@pandecta/contract';
import type { Entry } from '@pandecta/core/changes';
import type { Acting, Actor } from '../access/principal.ts';
import type { Db } from '../database/connect.ts';
import { Refusal } from '../errors.ts';
import type { ListsOf } from '../lists/kinds.ts';
import { entriesOf, entryOf } from '../lists/store.ts';
import { writeEntry } from '../lists/write.ts';
import type { Services } from '../services.ts';
import { visibleIds } from '../subjects/visible.ts';

export const outlineLists: ListsOf<'outline'> = { outline: {} };

type OutlineValue = Entry & { nodes: OutlineNode[] };
/** So deep they are nested at most, and so many stand in one. */
const DEEPEST = 12;
const MOST = 2000;

const notesIn = (nodes: OutlineNode[]): string[] => nodes.flatMap((n) => [...(n.note ? [n.note] : []), ...notesIn(n.children)]); // prettier-ignore
const depthOf = (nodes: OutlineNode[]): number => nodes.reduce((deep, n) => Math.max(deep, 1 + depthOf(n.children)), 0);

/** Those one sees; notes that one does not see, or that are removed, are left out of them. */
export async function outlinesOf(db: Db, viewer: Actor): Promise<OutlineInfo[]> {
  const found = await entriesOf<OutlineValue>(db, viewer, 'outline');
  const seen = new Set(await visibleIds(db, viewer, 'note', [...new Set(found.flatMap((o) => notesIn(o.value.nodes)))])); // prettier-ignore
  const shown = (nodes: OutlineNode[]): OutlineNode[] =>
    nodes.flatMap((n) => {
      const children = shown(n.children);
      return !n.note || seen.has(n.note) ? [{ ...n, children }] : children;
    });
  return found.map(({ id, value }) => ({ id, name: value.name, nodes: shown(value.nodes), personal: value.owner !== null })); // prettier-ignore
}

export async function makeOutline(services: Services, caller: Acting, input: NewOutline): Promise<Changed> {
  const owner = input.personal ? caller.actor.userId : null;
  return writeEntry(services, caller, 'outline', uuidv7(), null, await valueOf(services, caller, input, owner));
}

export async function editOutline(services: Services, caller: Acting, id: string, input: NewOutline): Promise<Changed> {
  const before = await findOutline(services, caller, id);
  const owner = input.personal === undefined ? before.owner : input.personal ? caller.actor.userId : null;
  return writeEntry(services, caller, 'outline', id, before, await valueOf(services, caller, input, owner));
}

export async function removeOutline(services: Services, caller: Acting, id: string): Promise<Changed> {
  return writeEntry(services, caller, 'outline', id, await findOutline(services, caller, id), null);
}

async function findOutline({ db }: Services, { actor }: Acting, id: string): Promise<OutlineValue> {
  const found = await entryOf<OutlineValue>(db, actor, 'outline', id);
  if (!found) throw new Refusal('no_such_outline');
  return found;
}

async function valueOf(
  { db }: Services,
  { actor }: Acting,
  input: NewOutline,
  owner: string | null,
): Promise<OutlineValue> {
  // prettier-ignore
  const name = input.name.trim();
  if (!name) throw new Refusal('invalid', 'an outline needs a name');
  if (depthOf(input.nodes) > DEEPEST) throw new Refusal('invalid', `an outline is nested at most ${DEEPEST} deep`);
  const notes = notesIn(input.nodes);
  if (notes.length > MOST) throw new Refusal('invalid', `at most ${MOST} notes stand in an outline`);
  const wanted = [...new Set(notes)];
  if ((await visibleIds(db, actor, 'note', wanted)).length < wanted.length) throw new Refusal('no_such_note');
  return { name, owner, nodes: input.nodes };
}
