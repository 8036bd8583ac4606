/** Why nothing answers a question: which of its words finds nothing by itself, and what narrows it too far. */
import type { Ask } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import { parseQuery, printQuery, type Node } from '@pandecta/core/query';
import type { Caller } from '../access/principal.ts';
import { understand } from './match.ts';
import { count, type Asking } from './store.ts';

/** Of a question of more parts than these only the whole is told. */
const MOST_PARTS = 8;

const SCOPES: Partial<Record<NonNullable<Ask['scope']>, string>> = {
  bin: 'in the bin',
  loose: 'among those in no collection',
};

/** @returns sentences, the most telling first; none where all there is to say is that nothing matches */
export async function whyNothing(to: Asking, caller: Caller, ask: Ask): Promise<string[]> {
  const counted = async (asked: Ask): Promise<number> => count(to, await understand(to.db, caller, asked));
  const { tree } = parseQuery(ask.q ?? '');
  const { q: _, ...narrowed } = ask;
  const out: string[] = [];
  const parts = partsOf(tree);
  if (parts.length > 1 && parts.length <= MOST_PARTS) {
    const alone = await Promise.all(
      parts.map(async (part) => ({ text: printQuery(part), n: await counted({ ...narrowed, q: printQuery(part) }) })),
    );
    const empty = alone.filter((a) => !a.n);
    out.push(
      ...empty.map((a) => `“${a.text}” finds nothing by itself.`),
      ...(empty.length
        ? []
        : [`Each of ${list(alone.map((a) => `“${a.text}”`))} finds something; no source has all of them.`]),
    );
  }
  const isNarrowed = Boolean(ask.include?.length || ask.exclude?.length || ask.collection || ask.yearFrom !== undefined || ask.yearTo !== undefined); // prettier-ignore
  const scope = ask.scope && SCOPES[ask.scope];
  if (ask.q && (isNarrowed || scope)) {
    const n = await counted({ q: ask.q, ...(ask.look && { look: ask.look }) });
    const where = [isNarrowed ? 'what it is narrowed to' : '', scope ? `being looked for ${scope}` : ''].filter(
      Boolean,
    );
    if (n) out.push(`Without ${list(where)}, ${countSources(n)} ${n === 1 ? 'matches' : 'match'}.`);
  }
  if (ask.q && ask.look && ask.look !== 'all') {
    const n = await counted({ ...ask, look: 'all' });
    if (n) out.push(`Looked for everywhere, ${countSources(n)} ${n === 1 ? 'matches' : 'match'}.`);
  }
  return out;
}

/** What must all hold: one part each. What is left out finds nothing by itself. */
const partsOf = (tree: Node): Node[] => (tree.is === 'and' ? tree.parts.filter((p) => p.is !== 'not') : [tree]);

const list = (words: string[]): string =>
  words.length > 1 ? `${words.slice(0, -1).join(', ')} and ${words.at(-1)}` : (words[0] ?? '');
