/** What the inquiry's members keep: searches in folders, labels with what they mean, ratings. */
import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Ask, Tint } from '@pandecta/contract';
import type { Entry, List, Term } from '@pandecta/core/changes';
import { commit } from '../apps/server/src/changes/service.ts';
import { rows, text } from '../apps/server/src/database/read.ts';
import type { Access } from '../apps/server/src/access/principal.ts';
import { writeGloss } from '../apps/server/src/glosses/service.ts';
import { keepFirstSearches } from '../apps/server/src/saved/first.ts';
import type { Services } from '../apps/server/src/services.ts';

const LABELS: [name: string, letter: string, tint: Tint, says: string, kinds: string[]][] = [
  ['Key authority', 'K', 'plum', 'The court relied on it, and so do we', ['legal_case']],
  ['Adverse', 'A', 'madder', 'Goes against us and must be met in the brief', ['legal_case', 'legislation']],
  [
    'Quoted in the report',
    'Q',
    'verdigris',
    'A sentence of it stands in the report; do not alter the page',
    ['article-journal'],
  ],
  ['To be asked for', 'F', 'ochre', 'The archive has it; a copy is still to be ordered', ['manuscript', 'map']],
];

const SEARCHES: [folder: string | null, name: string, q: string, describes: string, shared: boolean][] = [
  [
    'Before filing the brief',
    'Unread authorities',
    'kind:case (state:none or state:"to read")',
    'Cases nobody has begun',
    true,
  ],
  ['Before filing the brief', 'Adverse, not yet read', 'label:Adverse -state:read', 'What must be met', true],
  [
    'Before filing the brief',
    'Duty near operator',
    'operator near/8 duty',
    'Every place that may name who closes the gate',
    true,
  ],
  [null, 'Letters, 1871–74', 'kind:letter year:1871-1874', 'The promise and what came before it', true],
  [null, 'Silt, in any spelling', 'silt~ or sediment* -kind:case', 'The surveys spell it three ways', false],
];

const TAGS: [name: string, heading: string, says: string][] = [
  ['used', 'For the brief', 'A sentence of it stands in a draft'],
  ['adverse', 'For the brief', 'Speaks against the closing duty'],
  ['superseded', 'For the brief', 'A later edition or decision takes its place'],
  ['sediment budget', 'The estuary', 'What comes in with the tide, and what goes out with it'],
  ['field data', 'The estuary', 'Measured, not modelled'],
];

const GLOSSES: [kind: string, text: string, personal?: boolean][] = [
  [
    'article-journal',
    'Good on the figures, weak on who closed the gate. Take the table on sediment, leave the conclusion.',
  ],
  ['legal_case', 'Decided on the licence alone. The duty comes up only in passing, so quote it with care.'],
  ['manuscript', 'The hand changes halfway. The second writer dates by the tide, not by the day.'],
  ['article-journal', 'Ask at the seminar how they dated the cores: the appendix does not say.', true],
];

export async function keepThings(
  services: Services,
  actor: Access,
  chance: { odds(share: number): boolean },
): Promise<void> {
  const { db } = services;
  const { workspaceId } = actor;
  const enter = async (list: List, value: Entry): Promise<string> => {
    const id = uuidv7();
    await commit(services, actor, { do: 'entry', list, entry: id, value: { before: null, after: value } });
    return id;
  };
  await keepFirstSearches(db, workspaceId, 'Pandecta');
  const folders = new Map<string, string>();
  for (const name of new Set(SEARCHES.flatMap(([folder]) => folder ?? [])))
    folders.set(name, await enter('folder', { name, owner: null, parent: null }));
  for (const [folder, name, q, describes, shared] of SEARCHES) {
    const ask: Ask = { q };
    const said = { name, describes, keywords: [], ask, folder: folder && folders.get(folder)!, madeBy: 'Marit Okonjo' };
    await enter('saved', { ...said, owner: shared ? null : actor.userId, madeAt: new Date().toISOString() });
  }
  for (const [name, letter, tint, says, kinds] of LABELS) {
    const label = await enter('label', { name, letter, tint, says, owner: null });
    const found = await rows(
      db,
      { id: text() },
      sql`select id from sources where workspace_id = ${workspaceId} and presence = 'live' and record->>'type' = any(${sql.param(kinds)}) order by id`,
    );
    const sources = found.map((f) => f.id).filter(() => chance.odds(0.22));
    await commit(services, actor, { do: 'labelling', label, name, sources, present: true });
  }
  for (const [name, heading, says] of TAGS) {
    const [tag] = await rows(
      db,
      { id: text() },
      sql`select id from tags where workspace_id = ${workspaceId} and name = ${name} and not subject`,
    );
    const before: Term = { name, subject: false, says: '', heading: '', broader: null };
    if (tag)
      await commit(services, actor, { do: 'term', tag: tag.id, term: { before, after: { ...before, says, heading } } });
  }
  const all = await rows(
    db,
    { id: text() },
    sql`select id from sources where workspace_id = ${workspaceId} and presence = 'live' order by id`,
  );
  for (const [kind, said, personal] of GLOSSES) {
    const [source] = await rows(
      db,
      { id: text() },
      sql`select id from sources where workspace_id = ${workspaceId} and presence = 'live' and record->>'type' = ${kind} order by id limit 1`,
    );
    if (source) await writeGloss(services, actor, source.id, { text: said, personal });
  }
  for (const rating of [3, 4, 5]) {
    const rated = all.map((a) => a.id).filter(() => chance.odds(0.06));
    const ratings = Object.fromEntries(rated.map((id) => [id, { before: null, after: rating }]));
    await commit(services, actor, { do: 'rate', ratings });
  }
}
