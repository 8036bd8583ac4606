/** What people are in the middle of when the machine fails, and how much of it is found afterwards. */
import type { Changed, JobList, SourcePage } from '@pandecta/contract';
import { makePdf } from '../pdf.ts';
import type { Person } from '../server.ts';

export interface Reply {
  status: number;
  body: unknown;
}

export interface Work {
  name: string;
  /** What must be there before. */
  before?(me: Person): Promise<unknown>;
  ask(me: Person): Promise<Reply>;
  /** What is there of it: 'nothing', 'all', or what else. */
  found(me: Person): Promise<string>;
  /** Whether it is struck when it was answered already, while what follows it goes on. */
  after?: boolean;
}

/** Sources of one work, and one file of its own. */
export const SOURCES = 400;
const ris = Array.from(
  { length: SOURCES - 1 },
  (_, i) =>
    `TY  - BOOK\nTI  - Tide table number ${i} of the old harbour\nAU  - Vance, Ida\nPY  - 19${10 + (i % 90)}\nKW  - tides\nER  - \n`,
).join('');
const pdf = makePdf([['Hours of the lower gate', 'The keeper shut the gate at dusk, and the tide went out.']]);

async function files(): Promise<Record<string, string | Uint8Array>> {
  return { 'tides.ris': ris, 'hours.pdf': await pdf };
}
async function bring(me: Person): Promise<Reply> {
  const form = new FormData();
  form.append('through', 'straight');
  for (const [name, content] of Object.entries(await files())) form.append('file', new Blob([content as string]), name);
  return me.call('POST', `/w/${me.workspace}/imports`, form);
}
const prepared = async (me: Person): Promise<void> => void (await me.import(await files()));

async function outOf(me: Person, q: string, none: number, all: number): Promise<string> {
  const { total } = await me.ask(q);
  return total === none ? 'nothing' : total === all ? 'all' : `${total} of ${all}`;
}

/** All sources by words, by what is told of them, and the file's bytes as they were sent. */
async function brought(me: Person): Promise<string> {
  const all = await outOf(me, '', 0, SOURCES);
  const words = await outOf(me, 'tide', 0, SOURCES);
  const told = await outOf(me, 'author:vance', 0, SOURCES - 1);
  if (new Set([all, words, told]).size > 1) return `all sources: ${all}; by words: ${words}; by author: ${told}`;
  if (all !== 'all') return all;
  const { rows } = await me.at<SourcePage>('GET', '/sources?q=gate');
  const file = await fetch(`${me.base}/api/w/${me.workspace}/files/${rows[0]!.fileId}/content`, {
    headers: { cookie: me.cookie },
  });
  return Buffer.from(await file.arrayBuffer()).equals(await pdf) ? 'all' : 'another file than was sent';
}

const tag = (me: Person, present: boolean): Promise<Reply> =>
  me.call('POST', `/w/${me.workspace}/tagging`, { matching: {}, name: 'struck', present });

export const WORKS: Work[] = [
  { name: 'an import', ask: bring, found: brought },
  {
    name: 'a change',
    before: prepared,
    ask: (me) => tag(me, true),
    found: (me) => outOf(me, 'tag:struck', 0, SOURCES),
  },
  {
    name: 'an undo',
    before: async (me) => {
      await prepared(me);
      await tag(me, true);
    },
    ask: (me) => me.call('POST', `/w/${me.workspace}/undo`),
    found: (me) => outOf(me, 'tag:struck', SOURCES, 0),
  },
  {
    name: 'a merge',
    before: prepared,
    async ask(me) {
      const [into, ...sources] = (await me.ask('author:vance')).rows.map((r) => r.id);
      return me.call<Changed>('POST', `/w/${me.workspace}/merges`, { into, sources: sources.slice(0, 9) });
    },
    found: (me) => outOf(me, '', SOURCES, SOURCES - 9),
  },
  {
    name: 'a comparison of all with each other',
    before: prepared,
    ask: (me) => me.call('POST', `/w/${me.workspace}/duplicates/compare`),
    async found(me) {
      const { jobs } = await me.at<JobList>('GET', '/jobs');
      return jobs.find((j) => j.kind === 'compare')?.state === 'done' ? 'all' : 'nothing';
    },
  },
  { name: 'the indexing', ask: bring, found: brought, after: true },
];
