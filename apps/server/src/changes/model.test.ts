/** What SQL makes of changes, of every kind, beside what the model says of them. */
import { sql, type SQL } from 'drizzle-orm';
import fc from 'fast-check';
import { afterAll, beforeAll, expect, test } from 'vitest';
import {
  applyChange,
  Conflict,
  emptyLibrary,
  type Change,
  type CollectionWords,
  type Entry,
  type Library,
  type NoteWords,
  type Presence,
  type PageState,
  type ReadingState,
} from '@pandecta/core/changes';
import { anyChance, drawChange, drawFrom } from '@pandecta/core/testing';
import type { MarkPlace, Shape } from '@pandecta/core/marks';
import type { NumberRun } from '@pandecta/core/page-numbers';
import type { SourceRecord } from '@pandecta/core/source';
import type { Changed } from '@pandecta/contract';
import { json, list, number, orNull, rows, text, truth, type Columns, type RowOf } from '../database/read.ts';
import { Refusal } from '../errors.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';
import { makePdf } from '../testing/pdf.ts';
import { purge } from '../sources/purge.ts';
import { commit, undo } from './service.ts';

let server: TestServer;
let people: [Person, Person];
let workspace: string;
beforeAll(async () => {
  server = await startTestServer({ alone: true });
  const me = await server.person('steward');
  workspace = me.workspace;
  people = [me, await server.person('contributor', workspace)];
  for (const title of ['One', 'Two', 'Three']) await me.at('POST', '/sources', { record: { type: 'book', title } });
  await me.import({ 'hours.pdf': await makePdf([['Hours of the lower gate', 'The keeper shut the gate at dusk.']]) });
  const [a] = await Promise.all(['A', 'B'].map((name) => me.at<Changed>('POST', '/collections', { name })));
  await me.at('POST', '/collections', { name: 'C', parent: a!.id });
  const [first] = (await me.ask('')).rows.filter((r) => r.fileId);
  await me.at('POST', '/tagging', { ids: [first!.id], name: 'used', present: true });
  await me.at('POST', `/sources/${first!.id}/glosses`, { text: 'Read it again' });
  await me.at('POST', '/notes', { title: 'Who knew of it' });
  await me.at('POST', '/headings', { name: 'The promise', kind: 'theme' });
  const senses = await rows(
    db(),
    { id: text() },
    sql`select id from entries where list = 'sense' and workspace_id = ${workspace}`,
  );
  await me.at('POST', `/sources/${first!.id}/files/${first!.fileId}/marks`, {
    page: 1,
    sense: senses[0]!.id,
    quote: { exact: 'the gate', prefix: '', suffix: '' },
    rects: [],
  });
});
afterAll(() => server.close());

const db = () => server.app.services.db;

/** What stands in the database, in the shape of the model. */
async function stored(): Promise<Library> {
  const library = emptyLibrary();
  const w = workspace;
  const of = <C extends Columns>(columns: C, query: SQL): Promise<RowOf<C>[]> => rows(db(), columns, query);
  for (const s of await of(
    {
      id: text(),
      record: json<SourceRecord>(),
      presence: text<Presence>(),
      t: list(text()),
      c: list(text()),
      f: list(text()),
      l: list(text()),
      rating: orNull(number),
      recheck: orNull(text()),
      into: orNull(text()),
      main: orNull(text()),
    },
    sql`
    select s.id, s.record, s.presence, s.merged_into as "into", s.main_file as main,
      array(select tag_id::text from source_tags t where t.workspace_id = s.workspace_id and t.source_id = s.id) as t,
      array(select collection_id::text from collection_sources c where c.workspace_id = s.workspace_id and c.source_id = s.id) as c,
      array(select file_id::text from source_files f where f.workspace_id = s.workspace_id and f.source_id = s.id) as f,
      array(select label_id::text from source_labels l where l.workspace_id = s.workspace_id and l.source_id = s.id) as l,
      (select rating from source_ratings r where r.workspace_id = s.workspace_id and r.source_id = s.id) as rating,
      (select reason from source_rechecks r where r.workspace_id = s.workspace_id and r.source_id = s.id) as recheck
    from sources s where s.workspace_id = ${w} order by s.id`,
  ))
    library.sources.set(s.id, {
      record: s.record,
      presence: s.presence,
      tags: new Set(s.t),
      collections: new Set(s.c),
      files: new Set(s.f),
      labels: new Set(s.l),
      ...(s.rating && { rating: s.rating }),
      ...(s.recheck !== null && { recheck: s.recheck }),
      ...(s.into && { mergedInto: s.into }),
      ...(s.main && { main: s.main }),
    });
  for (const r of await of(
    { key: text(), note: text(), page: text() },
    sql`select from_id || ' ' || "as" || ' ' || to_id as key, note, page from relations where workspace_id = ${w}`,
  ))
    library.relations.set(r.key, { note: r.note, page: r.page });
  for (const r of await of(
    { key: text() },
    sql`select what || ' ' || coalesce(source_id::text, 'all') || ' ' || name as key from settled where workspace_id = ${w}`,
  ))
    library.settled.add(r.key);
  for (const e of await of(
    { key: text(), value: json<Entry>() },
    sql`select list || ' ' || id as key, value from entries where workspace_id = ${w}`,
  ))
    library.entries.set(e.key, e.value);
  for (const t of await of(
    { id: text(), name: text(), subject: truth, says: text(), heading: text(), broader: orNull(text()) },
    sql`select id, name, subject, says, heading, broader from tags where workspace_id = ${w} order by id`,
  ))
    library.tags.set(t.id, {
      name: t.name,
      subject: t.subject,
      says: t.says,
      heading: t.heading,
      broader: t.broader,
    });
  for (const c of await of(
    { key: text(), text: text() },
    sql`select file_id || ' ' || page || ' ' || line as key, text from corrections where workspace_id = ${w}`,
  ))
    library.corrections.set(c.key, c.text);
  for (const s of await of(
    { key: text(), state: json<PageState>() },
    sql`select file_id || ' ' || page as key, state from page_states where workspace_id = ${w}`,
  ))
    library.pageStates.set(s.key, s.state);
  for (const f of await of(
    { id: text(), name: text(), numbering: orNull(json<NumberRun[]>()) },
    sql`select id, name, numbered_by_hand as numbering from files where workspace_id = ${w} order by id`,
  ))
    library.files.set(f.id, { name: f.name, ...(f.numbering && { numbering: f.numbering }) });
  for (const c of await of(
    {
      id: text(),
      name: text(),
      says: orNull(text()),
      until: orNull(json<CollectionWords['until']>()),
      rule: orNull(json<CollectionWords['rule']>()),
      allows: orNull(text()),
      owner: orNull(text()),
      present: truth,
    },
    sql`select id, name, says, until, rule, allows, owner, present from collections where workspace_id = ${w} order by id`,
  )) {
    const { id, ...words } = c;
    library.collections.set(id, words);
  }
  for (const p of await of(
    { id: text(), collection: text(), parent: orNull(text()), present: truth, rank: orNull(number) },
    sql`
    select id, collection_id as collection, parent_id as parent, present, rank from placements where workspace_id = ${w} order by id`,
  ))
    library.placements.set(p.id, {
      collection: p.collection,
      parent: p.parent,
      present: p.present,
      ...(p.rank !== null && { rank: p.rank }),
    });
  for (const m of await of(
    {
      id: text(),
      source: text(),
      place: json<MarkPlace>(),
      gloss: text(),
      sense: text(),
      shape: text<Shape>(),
      owner: orNull(text()),
      present: truth,
    },
    sql`
    select id, source_id as source, jsonb_build_object('file', file_id, 'page', page, 'quote', quote, 'rects', rects, 'unplaced', unplaced) as place, gloss, sense_id as sense, shape, owner, present from marks where workspace_id = ${w} order by id`,
  )) {
    const { id, ...mark } = m;
    library.marks.set(id, mark);
  }
  for (const g of await of(
    { id: text(), source: text(), owner: orNull(text()), text: text(), present: truth },
    sql`select id, source_id as source, owner, text, present from glosses where workspace_id = ${w} order by id`,
  ))
    library.glosses.set(g.id, { source: g.source, owner: g.owner, text: g.text, present: g.present });
  for (const { id, ...words } of await of(
    {
      id: text(),
      title: text(),
      text: json<NoteWords['text']>(),
      event: orNull(text()),
      about: list(text()),
      tags: list(text()),
      from: json<NoteWords['from']>(),
      owner: orNull(text()),
      present: truth,
    },
    sql`select id, title, text, event, about::text[], tags::text[], origins as "from", owner, present from notes where workspace_id = ${w} order by id`,
  ))
    library.notes.set(id, words);
  for (const p of people) {
    const user = p.info.userId;
    const reading = await of(
      { id: text(), state: text<ReadingState>() },
      sql`
      select source_id as id, state from source_reading where workspace_id = ${w} and user_id = ${user}`,
    );
    const stars = await of(
      { id: text() },
      sql`select source_id as id from source_stars where workspace_id = ${w} and user_id = ${user}`,
    );
    library.members.set(user, {
      reading: new Map(reading.map((r) => [r.id, r.state])),
      stars: new Set(stars.map((s) => s.id)),
    });
  }
  return library;
}

/** As lists of what is present: what only remembers that something once was there is left out. */
function shown(library: Library): unknown {
  const present = <T extends { present?: boolean }>(all: Map<string, T>): unknown =>
    [...all].filter(([, x]) => x.present !== false).sort(([a], [b]) => (a < b ? -1 : 1));
  return {
    sources: [...library.sources].sort(([a], [b]) => (a < b ? -1 : 1)),
    tags: [...library.tags].sort(([a], [b]) => (a < b ? -1 : 1)),
    files: [...library.files].sort(([a], [b]) => (a < b ? -1 : 1)),
    collections: present(library.collections),
    placements: present(library.placements),
    marks: present(library.marks),
    pageStates: [...library.pageStates].sort(([a], [b]) => (a < b ? -1 : 1)),
    glosses: present(library.glosses),
    notes: present(library.notes),
    relations: [...library.relations].sort(([a], [b]) => (a < b ? -1 : 1)),
    settled: [...library.settled].sort(),
    entries: [...library.entries].sort(([a], [b]) => (a < b ? -1 : 1)),
    members: [...library.members].sort(([a], [b]) => (a < b ? -1 : 1)),
  };
}

/** The order in which the database names altered sources says nothing. */
const sorted = (change: Change): unknown => {
  if (change.do === 'all') return { ...change, changes: change.changes.map(sorted) };
  return 'sources' in change ? { ...change, sources: change.sources.toSorted() } : change;
};

type Became = { done: Change; id?: string } | 'nothing' | 'conflict';

function inModel(library: Library, change: Change): { became: Became; library: Library } {
  // All of it or nothing, as in a transaction.
  const after = structuredClone(library);
  try {
    const done = applyChange(after, change);
    return { became: done ? { done } : 'nothing', library: after };
  } catch (error) {
    if (!(error instanceof Conflict)) throw error;
    return { became: 'conflict', library };
  }
}

async function inSql(change: Change, userId: string): Promise<Became> {
  try {
    const { changeId, change: done } = await commit(server.app.services, { workspaceId: workspace, userId }, change);
    return changeId ? { done, id: changeId } : 'nothing';
  } catch (error) {
    if (error instanceof Refusal && error.code === 'stale_edit') return 'conflict';
    throw error;
  }
}

test('between any change and its undo the nightly purge takes nothing that the undo brings back', async () => {
  const { storage } = server.app.services;
  const done = new Set<string>();
  await fc.assert(
    fc.asyncProperty(anyChance, async (chance) => {
      const { userId } = people[0].info;
      const before = await stored();
      const change = drawChange(drawFrom(chance)(structuredClone(before), userId));
      const became = await inSql(change, userId);
      await purge(db(), storage);
      if (typeof became === 'string') return;
      done.add(change.do);
      await undo(server.app.services, { workspaceId: workspace, userId, role: 'steward' }, became.id);
      await purge(db(), storage);
      expect(shown(await stored())).toEqual(shown(before));
    }),
    { numRuns: 120 },
  );
  expect(done.size).toBeGreaterThan(8);
});

test('any run of changes by two people does in SQL what the model says, and taken back in turn leaves what was there', async () => {
  const met = new Map<string, number>();
  await fc.assert(
    fc.asyncProperty(fc.array(anyChance, { minLength: 1, maxLength: 8 }), async (chances) => {
      const before = await stored();
      let library = structuredClone(before);
      const done: { id: string; userId: string }[] = [];
      for (const chance of chances) {
        const { userId } = people[chance.numbers[0]! % 2]!.info;
        const change = drawChange(drawFrom({ ...chance, numbers: chance.numbers.slice(1) })(library, userId));
        const modelled = inModel(library, change);
        library = modelled.library;
        const became = await inSql(change, userId);
        const name = typeof became === 'string' ? became : 'done';
        met.set(`${change.do} ${name}`, (met.get(`${change.do} ${name}`) ?? 0) + 1);
        if (typeof became === 'string') expect([change, became]).toEqual([change, modelled.became]);
        else {
          expect(modelled.became).toMatchObject({ done: expect.anything() as unknown });
          expect(sorted(became.done)).toEqual(sorted((modelled.became as { done: Change }).done));
          done.push({ id: became.id!, userId });
        }
        expect(shown(await stored())).toEqual(shown(library));
      }
      for (const { id, userId } of done.reverse())
        await undo(server.app.services, { workspaceId: workspace, userId, role: 'steward' }, id);
      expect(shown(await stored())).toEqual(shown(before));
    }),
    { numRuns: 60 },
  );
  // Enough was drawn to mean something: conflicts too, and most kinds were carried out.
  expect([...met.keys()].filter((k) => k.endsWith('conflict')).length).toBeGreaterThan(0);
  expect([...met.keys()].filter((k) => k.endsWith('done')).length).toBeGreaterThan(8);
});
