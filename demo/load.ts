/** Loads the scenario through the same services a person uses: accounts, imports, filing, tags, marks. */
import { Readable } from 'node:stream';
import { setTimeout } from 'node:timers/promises';
import { hash } from '@node-rs/argon2';
import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { writeSources } from '@pandecta/core/formats';
import { findQuote, quoteAt } from '@pandecta/core/marks';
import { rectsOf, unpackWords } from '@pandecta/core/documents';
import {
  NOTHING_SAID,
  type Change,
  type CollectionEditChange,
  type ReadingState,
  type Relation,
  type Said,
} from '@pandecta/core/changes';
import { buildApp } from '@pandecta/server/composition/app';
import { commit } from '@pandecta/server/changes/service';
import { readConfig } from '@pandecta/server/config';
import { migrateUp } from '@pandecta/server/database/connect';
import { bytes, number, rows, text } from '@pandecta/server/database/read';
import { within } from '@pandecta/server/database/within';
import { writeFirstSenses } from '@pandecta/server/marks/senses';
import { marks } from '@pandecta/server/marks/tables';
import { setReading, setStar } from '@pandecta/server/own/service';
import { startImport } from '@pandecta/server/gathering/start';
import type { Input } from '@pandecta/server/gathering/inputs';
import { fileSources } from '@pandecta/server/places/filing';
import { makeCollection, placeCollection } from '@pandecta/server/places/service';
import { addByHand } from '@pandecta/server/sources/service';
import { ensureTags } from '@pandecta/server/tags/store';
import { jobEnds } from './ended.ts';
import { workspaceOf } from '../apps/server/src/records/workspace.ts';
import { keepThings } from './keeping.ts';
import { writeNotes } from './notes.ts';
import { fillIntake } from './intake.ts';
import { bringScans } from './scans.ts';
import { Chance } from './scenario/random.ts';
import { SOURCES, type DemoSource } from './scenario/sources.ts';
import { COPIES, FAULTY, LOOK_ALIKES } from './scenario/faulty.ts';
import { WIDER } from './scenario/wider.ts';
import { SENTENCES, type Theme } from './scenario/words.ts';
import { WORKS } from './scenario/works.ts';
import { printed, scan, typeset } from './typeset.ts';

const PASSWORD = 'low-water-1872';
const CLOSE_WITHIN_MS = 20_000;
const ACCOUNTS = [
  ['marit@sallow.example', 'Marit Okonjo', 'steward'],
  ['ines@sallow.example', 'Ines Vance', 'contributor'],
  ['tobias@sallow.example', 'Tobias Quill', 'reader'],
] as const;

const { services, start, close } = await buildApp(readConfig(process.env));
const { db, storage, followers } = services;
await migrateUp(services.database, services.config.migrationsFolder);
await start();

const workspaceId = uuidv7();
const passwordHash = await hash(PASSWORD);
await db.execute(sql`insert into workspaces (id, name) values (${workspaceId}, 'Sallow Estuary Inquiry')`);
const users: string[] = [];
for (const [email, name, role] of ACCOUNTS) {
  const id = uuidv7();
  users.push(id);
  await db.execute(
    sql`insert into users (id, email, name, password_hash) values (${id}, ${email}, ${name}, ${passwordHash})`,
  );
  await db.execute(sql`insert into members (workspace_id, user_id, role) values (${workspaceId}, ${id}, ${role})`);
}
const senses = await writeFirstSenses(db, workspaceId);
const actor = { workspaceId, userId: users[0]!, role: 'steward' as const };
const chance = new Chance(1974);

async function bring(files: { name: string; content: Uint8Array | string }[]): Promise<void> {
  const inputs: Input[] = [];
  for (const f of files)
    inputs.push({
      name: f.name,
      ...(await storage.put(Readable.from([typeof f.content === 'string' ? Buffer.from(f.content) : f.content]))),
    });
  const { jobId } = await startImport(services, actor, inputs, { through: 'straight' });
  await jobEnds(db, workspaceId, jobId);
}

// What lies deepest came first.
await bringScans(services, actor, workspaceId);

const textual = SOURCES.filter((s) =>
  ['article-journal', 'book', 'chapter', 'paper-conference', 'review-book'].includes(s.record.type),
);
const legal = SOURCES.filter((s) =>
  ['legal_case', 'legislation', 'regulation', 'speech', 'report', 'thesis'].includes(s.record.type),
);
const rest = SOURCES.filter((s) => !textual.includes(s) && !legal.includes(s));
// The wider literature first: it stands below what the inquiry is about.
await bring([{ name: 'other-estuaries.ris', content: writeSources(WIDER, 'ris') }]);
// Copies came one after another, by hand: an import would have known them.
for (const record of [...COPIES, ...LOOK_ALIKES, ...FAULTY]) await addByHand(services, actor, { ...record });
const wider = WIDER.filter((s) => s.pages);
await bring(
  await Promise.all(
    wider.map(async (s, i) => ({
      name: nameOf(s, 500 + i),
      content: await typeset(s.record, s.theme, s.pages!, 900 + i, true),
    })),
  ),
);
await bring([{ name: 'archive-and-web.json', content: writeSources(rest, 'csl-json') }]);
await bring([{ name: 'law-and-reports.bib', content: writeSources(legal, 'biblatex') }]);
// The newest first is what one sees first: an article that was read, marked and filed.
const SHOWN = textual.find((s) => s.theme === 'licensing' && s.pages && s.record.type === 'article-journal')!;
const withPages = SOURCES.filter((s) => s.pages);
const documents: { name: string; content: Uint8Array }[] = [];
const scans: typeof documents = [];
/** What an article lists at its end: works of its matter that came before it, here and elsewhere. */
function referencesOf(s: DemoSource, i: number): string[] {
  if (s.record.type !== 'article-journal' || (i % 3 && s.record !== SHOWN.record)) return [];
  const pick = new Chance(700 + i);
  const year = (r: DemoSource['record']): number => r.issued?.['date-parts']?.[0]?.[0] ?? 9999;
  const before = (r: DemoSource['record']): boolean => /article-journal|book|chapter/.test(r.type) && year(r) < year(s.record); // prettier-ignore
  const known = SOURCES.filter((o) => o.theme === s.theme && before(o.record)).map((o) => o.record);
  const others = WORKS.slice(-400).filter((o) => before(o.record)).map((o) => o.record); // prettier-ignore
  const all = [...pick.some(known, Math.min(6, known.length)), ...pick.some(others, Math.min(4, others.length))];
  return all.map(printed).sort((a, b) => a.localeCompare(b, 'en'));
}

for (const [i, s] of withPages.entries()) {
  const pdf = await typeset(s.record, s.theme, s.pages!, 100 + i, i % 3 !== 0, referencesOf(s, i));
  const letter = s.record.type === 'personal_communication';
  (letter ? scans : documents).push({ name: nameOf(s, i), content: letter ? await scan(pdf) : pdf });
}
const fresh: DemoSource['record'] = {
  type: 'report',
  title: 'Statement of the duty operator, night of 11 January',
  author: [{ given: 'Anton', family: 'Brackwater' }],
};
await bring([...scans, { name: 'scan_01421.pdf', content: await typeset(fresh, 'operators', 4, 9, false) }]);
await bring([
  { name: 'shoreline-index.ris', content: writeSources([...textual.filter((s) => s !== SHOWN), SHOWN], 'ris') },
]);

await bring(documents);

function nameOf(s: DemoSource, i: number): string {
  if (i % 5 === 4) return `scan_${String(1400 + i).padStart(5, '0')}.pdf`;
  return `${(s.record.author?.[0]?.family ?? s.record.type)
    .normalize('NFD')
    .replace(/[^A-Za-z]/g, '')
    .toLowerCase()}-${s.record.issued?.['date-parts']?.[0]?.[0] ?? i}.pdf`;
}

const here = await rows(
  db,
  { id: text(), title: text(), kind: text() },
  sql`select id, record->>'title' as title, record->>'type' as kind from sources
    where workspace_id = ${workspaceId} and coalesce(record->>'archive_location', '') not like 'Box 9%' order by id`,
);
const idOf = new Map(here.map((h) => [h.title, h.id]));
const ofTheme = (theme: Theme, kinds?: string[]): string[] =>
  SOURCES.filter((s) => s.theme === theme && (!kinds || kinds.includes(s.record.type))).flatMap(
    (s) => idOf.get(s.record.title!) ?? [],
  );

async function collection(name: string, parent?: string): Promise<string> {
  return (await makeCollection(services, actor, name, parent ?? null)).id!;
}
const licensing = await collection('Licensing');
const chapter1 = await collection('Chapter 1', licensing);
const chapter2 = await collection('Chapter 2', licensing);
const operators = await collection('Operators', licensing);
const cases = await collection('Cases', licensing);
const marsh = await collection('Saltmarsh evidence');
const transects = await collection('Transects', marsh);
const archive = await collection('Commission archive');
const box4 = await collection('Box 4, letters', archive);
const group = await collection('Reading group, spring');
await placeCollection(services, actor, { collection: operators, parent: null });

const split = (ids: string[], share: number): string[] => ids.filter(() => chance.odds(share));
const file = (ids: string[], to: string): Promise<unknown> =>
  fileSources(services, actor, ids, { collections: [to], present: true });
const lawArticles = ofTheme('licensing', ['article-journal', 'book', 'chapter']);
await file(split(lawArticles, 0.4), chapter1);
await file(split(lawArticles, 0.55), chapter2);
for (const place of [chapter1, chapter2, operators]) await file([idOf.get(SHOWN.record.title!)!], place);
await file(ofTheme('licensing', ['legal_case', 'legislation', 'regulation']), cases);
await file(split(ofTheme('operators'), 0.8), operators);
await file(split(ofTheme('saltmarsh'), 0.75), marsh);
await file(split(ofTheme('saltmarsh', ['article-journal', 'dataset']), 0.3), transects);
await file(split(ofTheme('archive', ['article-journal', 'book', 'manuscript', 'map']), 0.8), archive);
await file(ofTheme('archive', ['personal_communication']), box4);
await file(
  split(
    here.map((h) => h.id),
    0.07,
  ),
  group,
);

const lately = await collection('Saltmarsh, last ten years', marsh);
const describe = (id: string, called: string, fields: CollectionEditChange['fields']): Promise<unknown> =>
  commit(services, actor, { do: 'collection-edit', collection: id, called, fields });
await describe(chapter2, 'Chapter 2', {
  says: { before: null, after: 'Who must close the barrier: the operators’ duty and where it ends' },
  until: { before: null, after: { day: '2027-03-01', what: 'the hearing' } },
});
await describe(box4, 'Box 4, letters', {
  says: { before: null, after: 'As they lie in the box; the undated ones stand last' },
});
await describe(lately, 'Saltmarsh, last ten years', {
  says: { before: null, after: 'Fills itself: what is new on the marsh' },
  rule: { before: null, after: { q: 'subject:saltmarsh year:2016-' } },
});

for (const tag of new Set(SOURCES.flatMap((s) => s.tags))) {
  const ids = SOURCES.filter((s) => s.tags.includes(tag)).flatMap((s) => idOf.get(s.record.title!) ?? []);
  const made = await ensureTags(db, workspaceId, [tag], false);
  await commit(services, actor, {
    do: 'tag',
    tag: made.get(tag.toLowerCase())!,
    name: tag,
    subject: false,
    sources: ids,
    present: true,
  });
}
for (const [state, share] of [
  ['to read', 0.35],
  ['read', 0.3],
  ['reading', 0.03],
] as [ReadingState, number][]) {
  const ids = split(
    here.map((h) => h.id),
    share,
  );
  await setReading(services, actor, ids, state);
}
await setStar(
  services,
  actor,
  [idOf.get(SHOWN.record.title!)!, ...split(ofTheme('licensing', ['legal_case']), 0.3)],
  true,
);

const GLOSSES = [
  'No duty on the operator is written into any licence before 1974.',
  '41 licences read; 6 name a closing hour.',
  'Contradicts the Commission minute of 1872? Compare Box 4.',
  'Use in chapter 2, section 1.',
  'Check the datum before citing.',
  '',
  'Same figures as the survey; who copied whom?',
  '',
];
const files = await rows(
  db,
  { id: text(), source: text(), theme: text() },
  sql`select f.id, sf.source_id as source, s.record->>'title' as theme from files f
  join source_files sf on sf.workspace_id = f.workspace_id and sf.file_id = f.id join sources s on s.workspace_id = sf.workspace_id and s.id = sf.source_id
  where f.workspace_id = ${workspaceId} and f.state = 'text' and f.name not like 'box-9%' order by f.name, f.id`,
);
interface Marking {
  chance: Chance;
  /** The first page that is marked. */
  from: number;
  /** Of the pages so large a part is marked, and at most so many. */
  share: number;
  most: number;
  /** Of the marks so large a part is a highlight, and so large a part one member's own. */
  highlights: number;
  own: number;
}
async function markPassages({ chance: of, from, share, most, highlights, own }: Marking): Promise<void> {
  for (const f of files) {
    const theme = SOURCES.find((s) => s.record.title === f.theme)?.theme ?? 'operators';
    const pages = await rows(
      db,
      { number: number, text: text(), words: bytes },
      sql`select number, text, words from pages where workspace_id = ${workspaceId} and file_id = ${f.id} and number >= ${from} order by number`,
    );
    for (const page of pages.filter(() => of.odds(share)).slice(0, most)) {
      const at = findQuote(page.text, { exact: of.pick(SENTENCES[theme]), prefix: '', suffix: '' });
      if (!at) continue;
      const id = uuidv7();
      const shape = of.odds(highlights) ? 'highlight' : of.pick(['underline', 'strike'] as const);
      const owner = of.odds(own) ? users[0]! : null;
      const [senseId, gloss] = [of.pick(senses), of.pick(GLOSSES)];
      await within(db, workspaceId).insert(marks, {
        id,
        sourceId: f.source,
        fileId: f.id,
        page: page.number,
        senseId,
        shape,
        owner,
        quote: quoteAt(page.text, at.start, at.end),
        rects: rectsOf(unpackWords(page.words), at.start, at.end),
        gloss,
        present: false,
        madeBy: owner ?? of.pick(users.slice(0, 2)),
      });
      const change: Change = { do: 'mark', mark: id, source: f.source, present: true, ...(owner && { own: owner }) };
      await commit(services, actor, change);
    }
  }
}
await markPassages({ chance, from: 1, share: 0.45, most: 12, highlights: 0.8, own: 0.08 });
// Those of the spring, in what was read more closely.
await markPassages({ chance: new Chance(1975), from: 5, share: 0.3, most: 8, highlights: 0.7, own: 0 });
// Those of the second reading, for the chapters.
await markPassages({ chance: new Chance(1873), from: 2, share: 0.22, most: 6, highlights: 0.75, own: 0 });
// Places without words of their own: a table, and a spot on a page.
for (const [i, f] of files.slice(0, 12).entries()) {
  const region = i % 3 < 2;
  const rects = region ? [{ x0: 90, y0: 250, x1: 400, y1: 340 }] : [{ x0: 90, y0: 400, x1: 96, y1: 406 }];
  const id = uuidv7();
  await within(db, workspaceId).insert(marks, {
    id,
    sourceId: f.source,
    fileId: f.id,
    page: 1,
    senseId: senses[i % senses.length]!,
    shape: region ? 'region' : 'point',
    quote: { exact: '', prefix: '', suffix: '' },
    rects,
    gloss: region ? 'The passage as a whole, for the table in chapter 2.' : 'The margin is torn here in our copy.',
    present: false,
    madeBy: users[i % 2]!,
  });
  await commit(services, actor, { do: 'mark', mark: id, source: f.source, present: true });
}
// What proofing tells from files, versions and the day.
const read = textual.filter((s) => s.record.type === 'article-journal' && s !== SHOWN);
const inDays = (days: number): number[] => {
  const day = new Date(Date.now() + days * 86_400_000);
  return [day.getUTCFullYear(), day.getUTCMonth() + 1, day.getUTCDate()];
};
const lent = {
  type: 'article-newspaper',
  title: 'The night the lower gate stayed open',
  'container-title': 'Northmere Gazette',
  issued: { 'date-parts': [[1974, 1, 12]] },
  'access-until': { 'date-parts': [inDays(19)] },
};
await addByHand(services, actor, lent);
const [published, misread] = [read[0]!.record, read[1]!.record];
const preprint = { type: 'article', title: published.title!, author: published.author!, issued: published.issued! };
const { id: early } = await addByHand(services, actor, { ...preprint, publisher: 'Tidemark preprints' });
const relation = { from: early!, to: idOf.get(published.title!)!, as: 'version of' } as const;
await commit(services, actor, { do: 'relate', ...relation, said: { before: null, after: NOTHING_SAID } });
// How the authorities stand to each other, and what the best known article makes of them.
const stands = async (from: string, as: Relation, to: string, said: Said = NOTHING_SAID): Promise<unknown> =>
  commit(services, actor, { do: 'relate', from, to, as, said: { before: null, after: said } });
const authorities = ofTheme('licensing', ['legal_case']);
const shown = idOf.get(SHOWN.record.title!)!;
if (authorities.length > 3) {
  await stands(authorities[1]!, 'follows', authorities[0]!, { note: 'The operator’s duty is the same', page: '[14]' });
  await stands(authorities[2]!, 'distinguishes', authorities[0]!, { note: 'No order had been made', page: '[31]' });
  await stands(authorities[3]!, 'overrules', authorities[2]!);
  await stands(shown, 'cites', authorities[0]!, { note: '', page: '112' });
  await stands(shown, 'disagrees with', authorities[2]!, { note: 'The order binds all operators', page: '119' });
  await stands(
    lawArticles.find((id) => id !== shown)!,
    'replies to',
    shown,
  );
}
const strange = files.find((f) => f.theme !== misread.title && f.theme !== published.title)!;
const attached = { source: idOf.get(misread.title!)!, file: strange.id, name: 'article.pdf' };
await commit(services, actor, { do: 'attach', ...attached, present: true });
await keepThings(services, actor, chance);
const workspace = { ...(await workspaceOf(db, workspaceId)), name: '', role: actor.role };
const caller = { actor, workspace, user: { id: users[0]!, name: '', email: '', csrf: '' } };
await writeNotes(services, caller, users);
await fillIntake(services, actor);
await followers.settle();
// All of it is in the database by now: a thread or a connection that does not end must not keep the loading from ending.
await Promise.race([close(), setTimeout(CLOSE_WITHIN_MS)]);
process.exit(0);
