/** Notes: 10,000 of them under 2,000 headings asked, drawn and opened through the HTTP API, beside the list of sources in the same run. */
import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { Chance } from '@pandecta/demo/random';
import { paragraph, quotation, type DocNode } from '@pandecta/core/notes';
import { HEADING_KINDS } from '@pandecta/core/headings';
import { insertNote, writeTies } from '@pandecta/server/notes/write';
import { insertSources } from '@pandecta/server/records/store';
import { reserveCitationKeys } from '@pandecta/server/records/citation-keys';
import { derive } from '@pandecta/server/indexing/derive';
import { quantile, synthetic, table } from './measure.ts';
import { startBench } from './server.ts';

const [SOURCES, NOTES, HEADINGS, RUNS] = [400, 10_000, 2000, 100];
const bench = await startBench('notes');
const { services } = bench.app;
const { db } = services;
const actor = { workspaceId: bench.workspace.id, userId: bench.userId };
const w = actor.workspaceId;
const have = Number((await db.execute(sql`select count(*) as n from notes where workspace_id = ${w}`)).rows[0]!.n);
if (have < NOTES) {
  const made = synthetic(SOURCES, 60, 77).map((s) => ({ id: uuidv7(), record: s.record, provenance: {} }));
  const list = await reserveCitationKeys(db, w, made);
  const chance = new Chance(7);
  const headings = Array.from({ length: HEADINGS }, () => uuidv7());
  const words = synthetic(NOTES, 60, 78).map((s) => s.record);
  await db.transaction(async (t) => {
    const tx = t as unknown as typeof db;
    await tx.execute(sql`set local statement_timeout = 0`);
    await insertSources(tx, actor, list, { presence: 'live', importId: null });
    await derive(tx, w, { records: list.map((l) => l.id) });
    for (const [i, id] of headings.entries()) {
      const value = { name: `Heading ${words[i]!.title ?? i}`, owner: null, kind: chance.pick(HEADING_KINDS), others: [`Other name ${i}`], dates: '', place: '', says: '', parent: null, into: null, orcid: '' }; // prettier-ignore
      await tx.execute(sql`insert into entries (workspace_id, id, list, value) values (${w}, ${id}, 'heading', ${JSON.stringify(value)}::jsonb)`); // prettier-ignore
    }
    const ids: string[] = [];
    for (const { title, abstract = '' } of words) {
      const source = chance.pick(list).id;
      const origin = {
        source,
        file: null,
        page: chance.int(1, 40),
        cited: '',
        mark: chance.odds(0.6) ? uuidv7() : null,
      };
      const content: DocNode[] = [quotation(origin, abstract.slice(0, 120)), paragraph(abstract)];
      if (ids.length && chance.odds(0.3)) content.push({ type: 'paragraph', content: [{ type: 'reference', attrs: { to: 'note', id: chance.pick(ids), label: 'another', how: null } }] }); // prettier-ignore
      const note = {
        title: title ?? '',
        text: { type: 'doc', content },
        event: chance.odds(0.7) ? String(chance.int(1600, 2020)) : null,
        about: [chance.pick(headings), chance.pick(headings), chance.pick(headings.slice(0, 50))],
        tags: [],
        from: [],
        owner: null,
        present: true,
      };
      const id = uuidv7();
      await insertNote(tx, w, id, actor.userId, note);
      await writeTies(tx, w, id, note);
      ids.push(id);
    }
    await tx.execute(sql`update notes set present = true where workspace_id = ${w}`);
  });
  await services.followers.settle();
  await db.execute(sql`analyze`);
}
const some = (await db.execute(sql`select id from notes where workspace_id = ${w} order by id limit 100`)).rows.map((r) => String(r.id)); // prettier-ignore
const [heading] = (await db.execute(sql`select a as id from notes, unnest(about) a where workspace_id = ${w} group by a order by count(*) desc limit 1`)).rows as { id: string }[]; // prettier-ignore

const PER: Record<string, (i: number) => Promise<Response>> = {
  'all, changed last': () => bench.post('/notes/list', {}),
  'all, by event and title': () => bench.post('/notes/list', { sort: ['event', 'title'] }),
  'all, by author and event': () => bench.post('/notes/list', { sort: ['author', 'event'] }),
  'one word, by event': () => bench.post('/notes/list', { q: 'sediment', sort: ['event'] }),
  'two words, best first': () => bench.post('/notes/list', { q: 'sediment barrier', sort: ['-found'] }),
  'about a heading': () => bench.post('/notes/list', { about: [heading!.id] }),
  'words of the sources’ titles': () => bench.post('/notes/list', { q: 'title:barrier' }),
  'timeline of all that have a date': () => bench.post('/notes/timeline', {}),
  'web of the 2,000 changed last': () => bench.post('/notes/web', {}),
  'an open note': (i) => bench.get(`/notes/${some[i % some.length]!}`),
  'a heading’s page': () => bench.get(`/headings/${heading!.id}`),
  [`reference: the list of the ${SOURCES} sources`]: () => bench.get('/sources?count=50'),
};
const lines: (string | number)[][] = [];
for (const [name, work] of Object.entries(PER)) {
  const all: number[] = [];
  for (let i = 0; i < RUNS; i += 1) {
    const begun = performance.now();
    const reply = await work(i);
    await reply.text();
    if (!reply.ok) throw new Error(`${name}: ${reply.status}`);
    all.push(performance.now() - begun);
  }
  lines.push([name, quantile(all, 0.5), quantile(all, 0.95)]);
}
table(
  `${NOTES} notes under ${HEADINGS} headings, milliseconds (${RUNS} times each)`,
  ['asked', 'median', 'p95'],
  lines,
);
await bench.close();
process.exit(0);
