/** Headings: added, altered, merged and parted. */
import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Changed, HeadingOffers, NewHeading } from '@pandecta/contract';
import type { EntryChange } from '@pandecta/core/changes';
import { nameKey } from '@pandecta/core/headings';
import { normaliseOrcid } from '@pandecta/core/identifiers';
import { counted } from '@pandecta/core/wording';
import type { Acting } from '../access/principal.ts';
import { number, one, rows, text } from '../database/read.ts';
import { literally } from '../database/sql.ts';
import { Refusal } from '../errors.ts';
import { entriesOf } from '../lists/store.ts';
import { writeEntries, writeEntry } from '../lists/write.ts';
import type { Services } from '../services.ts';
import { findHeading, type HeadingValue } from './store.ts';

const OFFERED = 12;

export async function makeHeading(services: Services, caller: Acting, input: NewHeading): Promise<Changed> {
  return writeEntry(services, caller, 'heading', uuidv7(), null, await valueOf(services, caller, input));
}

export async function editHeading(services: Services, caller: Acting, id: string, input: NewHeading): Promise<Changed> {
  const before = await findHeading(services.db, caller.actor, id);
  return writeEntry(services, caller, 'heading', id, before, await valueOf(services, caller, input, { id, before }));
}

/** @throws Refusal where a note has it, or another was merged into it */
export async function removeHeading(services: Services, caller: Acting, id: string): Promise<Changed> {
  const before = await findHeading(services.db, caller.actor, id);
  const used = await one(
    services.db,
    { notes: number, merged: number },
    sql`select (select count(*)::int from notes where workspace_id = ${caller.actor.workspaceId} and about @> array[${id}::uuid]) as notes,
      (select count(*)::int from entries where workspace_id = ${caller.actor.workspaceId} and list = 'heading' and (value->>'into' = ${id} or value->>'parent' = ${id})) as merged`,
  );
  if (used!.notes) throw new Refusal('heading_used', before.name, counted(used!.notes, 'note'));
  if (used!.merged) throw new Refusal('heading_used', before.name, counted(used!.merged, 'other heading'));
  return writeEntry(services, caller, 'heading', id, before, null);
}

/** Notes keep the heading they were given; from now on it counts as the other. What was merged into it before goes along. */
export async function mergeHeading(services: Services, caller: Acting, id: string, into: string): Promise<Changed> {
  if (id === into) throw new Refusal('invalid', 'a heading is merged into another one');
  const [going, target] = [await findHeading(services.db, caller.actor, id), await findHeading(services.db, caller.actor, into)]; // prettier-ignore
  if (target.into) throw new Refusal('invalid', `“${target.name}” was itself merged into another heading`);
  const all = await entriesOf<HeadingValue>(services.db, caller.actor, 'heading');
  // What stands below it stands below the other; the other no longer stands below it.
  const changes = all.flatMap(({ id: one, value }): EntryChange[] => {
    const to: Partial<HeadingValue> =
      one === id || value.into === id
        ? { into }
        : value.parent === id
          ? { parent: one === into ? going.parent : into }
          : {};
    return Object.keys(to).length ? [entryChange(one, value, { ...value, ...to })] : [];
  });
  return writeEntries(services, caller, `Merged the heading “${going.name}” into “${target.name}”`, changes);
}

export async function partHeading(services: Services, caller: Acting, id: string): Promise<Changed> {
  const before = await findHeading(services.db, caller.actor, id);
  if (!before.into) throw new Refusal('invalid', `“${before.name}” is not merged into another heading`);
  const other = await findHeading(services.db, caller.actor, before.into);
  return writeEntries(services, caller, `Parted the heading “${before.name}” from “${other.name}”`, [
    entryChange(id, before, { ...before, into: null }),
  ]);
}

const entryChange = (entry: string, before: HeadingValue, after: HeadingValue): EntryChange => ({
  do: 'entry',
  list: 'heading',
  entry,
  value: { before, after },
});

/** Headings whose names hold a word that begins so, and names of records that are no heading yet. */
export async function offerHeadings({ db }: Services, { actor }: Acting, q: string): Promise<HeadingOffers> {
  const wanted = nameKey(q);
  if (!wanted) return { offers: [] };
  const begins = (name: string): boolean => ` ${nameKey(name)}`.includes(` ${wanted}`);
  const all = await entriesOf<HeadingValue>(db, actor, 'heading');
  const byId = new Map(all.map((h) => [h.id, h.value]));
  const found = new Map<string, { id: string; name: string; kind: HeadingValue['kind']; by: string }>();
  for (const { id, value } of all) {
    const by = [value.name, ...value.others].find(begins);
    const target = value.into ?? id;
    const counts = byId.get(target);
    if (by && counts && !found.has(target))
      found.set(target, { id: target, name: counts.name, kind: counts.kind, by: by === counts.name ? '' : by });
  }
  const known = new Set(all.flatMap(({ value }) => [value.name, ...value.others].map(nameKey)));
  const inRecords = await rows(
    db,
    { name: text(), type: text() },
    sql`select key as name, type from facets where workspace_id = ${actor.workspaceId} and type in ('person', 'court')
      and key ilike ${`%${literally(q.trim())}%`} order by key limit 50`,
  );
  const names = inRecords.flatMap(({ name, type }) =>
    begins(name) && !known.has(nameKey(name))
      ? [{ id: null, name, kind: type === 'court' || !name.includes(',') ? ('body' as const) : ('person' as const), by: '' }] // prettier-ignore
      : [],
  );
  return { offers: [...[...found.values()].slice(0, OFFERED), ...names].slice(0, OFFERED) };
}

/** @throws Refusal where another heading of its kind has the name already, or the identifier is none */
async function valueOf(
  { db }: Services,
  { actor }: Acting,
  input: NewHeading,
  of?: { id: string; before: HeadingValue },
): Promise<HeadingValue> {
  const name = input.name.trim();
  if (!name) throw new Refusal('invalid', 'a heading needs a name');
  const all = (await entriesOf<HeadingValue>(db, actor, 'heading')).filter((h) => h.id !== of?.id);
  const taken = all.find((h) => h.value.kind === input.kind && nameKey(h.value.name) === nameKey(name));
  if (taken) throw new Refusal('invalid', `there is a heading “${taken.value.name}” already`);
  const orcid = input.orcid?.trim() ? normaliseOrcid(input.orcid) : '';
  if (orcid === undefined) throw new Refusal('invalid', `“${input.orcid}” is no ORCID`);
  const same = orcid && all.find((h) => h.value.orcid === orcid);
  if (same) throw new Refusal('invalid', `“${same.value.name}” has this ORCID: the two are one person, merge them`);
  if (input.parent && !all.some((h) => h.id === input.parent)) throw new Refusal('invalid', 'there is no such broader heading'); // prettier-ignore
  const { before } = of ?? {};
  const others = input.others?.map((o) => o.trim()).filter((o) => o && nameKey(o) !== nameKey(name));
  return {
    name,
    owner: null,
    kind: input.kind,
    others: [...new Set(others ?? before?.others ?? [])],
    dates: input.dates?.trim() ?? before?.dates ?? '',
    place: input.place?.trim() ?? before?.place ?? '',
    says: input.says?.trim() ?? before?.says ?? '',
    parent: input.parent === undefined ? (before?.parent ?? null) : input.parent,
    into: before?.into ?? null,
    orcid: input.orcid === undefined ? (before?.orcid ?? '') : orcid,
  };
}
