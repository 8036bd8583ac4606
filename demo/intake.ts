/** The outside of the scenario, and what waits: catalogues, searches of two weeks, two watches, an intake in three batches. */
import { eq, sql } from 'drizzle-orm';
import type { Actor } from '@pandecta/server/access/principal';
import type { Services } from '@pandecta/server/services';
import { takeApart } from '@pandecta/core/door';
import { yearOf } from '@pandecta/core/source';
import { within } from '@pandecta/server/database/within';
import type { Input } from '@pandecta/server/gathering/inputs';
import { startImport, type Setting } from '@pandecta/server/gathering/start';
import { imports } from '@pandecta/server/gathering/tables';
import { addCatalogue, listCatalogues } from '@pandecta/server/catalogues/catalogues';
import { found, gatherFound } from '@pandecta/server/outside/found';
import { describe, startSearch } from '@pandecta/server/outside/search';
import { searches } from '@pandecta/server/outside/tables';
import { addWatch } from '@pandecta/server/outside/watches';
import { jobEnds } from './ended.ts';
import { SOURCES } from './scenario/sources.ts';

/** One of the inquiry's own, as another printed it; the others are nobody's yet. */
function shortened(): string {
  const { record: r } = SOURCES.find((x) => x.record.title?.startsWith('Sediment starvation'))!;
  const people = r.author!.map((n) => `${n.family} ${n.given![0]}`).join(', ');
  return `${people}. ${r.title}. ${r['container-title-short']} ${yearOf(r.issued)};${r.volume}(${r.issue}):${r.page}.`;
}

const PASTED = `${shortened()}

Harbour Commissioners v Penhallow Dredging Ltd [1987] 2 Est R 114 (Ct App)

Halvard, R. (2024). Marsh-edge erosion in a regulated tide. Coastal Processes, 55(1), 12–29.

Okonjo, Marit. The Licensed Gate. 2nd ed. Sallow: Quillback Press, 1999.

ibid., at 214
`;
/** Where the stand-ins answer; the server is led there by its hosts. */
const OUTSIDE = 'http://catalogues.sallow.example';
const FROM_BROWSER = [
  'http://packet.sallow.example/news/promise-of-1872',
  'http://packet.sallow.example/news/gate-stays-open',
];

const SEARCHES: [words: string, daysAgo: number, why: string][] = [
  ['sediment starvation', 13, 'First survey for chapter 3'],
  ['tidal gate licence', 9, 'Licences that name an operator'],
  ['fishermen petitions', 6, ''],
  ['larval drift', 1, 'Asked for by the ecologists'],
];

export async function fillIntake(services: Services, actor: Actor): Promise<void> {
  const { db } = services;
  await addCatalogue(db, actor.workspaceId, {
    name: 'Shoreline Index',
    protocol: 'sru-1.2',
    address: `${OUTSIDE}/shoreline`,
  });
  await addCatalogue(db, actor.workspaceId, {
    name: 'Northmere Catalogue',
    protocol: 'opensearch',
    address: `${OUTSIDE}/northmere?q={searchTerms}&start={startIndex?}&count={count?}`,
  });
  await addCatalogue(db, actor.workspaceId, {
    name: 'Open Registry of Works',
    protocol: 'works',
    address: `${OUTSIDE}/works`,
  });
  const { catalogues } = await listCatalogues(db, actor.workspaceId);
  const all = catalogues.map((c) => c.id);
  const shoreline = catalogues.find((c) => c.name === 'Shoreline Index')!.id;

  for (const [words, daysAgo, why] of SEARCHES) {
    const { id, done } = await startSearch(services, actor, { question: { words }, catalogues: all });
    await done;
    if (why) await describe(db, actor.workspaceId, id, why);
    await within(db, actor.workspaceId).update(
      searches,
      { madeAt: sql`now() - make_interval(days => ${daysAgo})` },
      eq(searches.id, id),
    );
  }
  const watch = (name: string, words: string, every: 'week' | 'day', author?: string): Promise<unknown> =>
    addWatch(services, actor, { name, question: { words, ...(author && { author }) }, catalogues: all, every });
  await watch('Barrier closure', 'barrier closure', 'week');
  await watch('Okonjo, new work', '', 'day', 'Okonjo');

  const bring = async (text: string, setting: Setting): Promise<string> => {
    const inputs = takeApart(text).map((part): Input => ({ name: part.text.slice(0, 120), part }));
    const { importId, jobId } = await startImport(services, actor, inputs, setting);
    await jobEnds(db, actor.workspaceId, jobId);
    return importId;
  };
  const browsed = await bring(FROM_BROWSER.join('\n'), {
    way: 'browser',
    title: 'The Sallow Packet, from the browser',
  });
  await within(db, actor.workspaceId).update(
    imports,
    { madeAt: sql`now() - interval '1 day'` },
    eq(imports.id, browsed),
  );
  await bring(PASTED, { way: 'typed', title: 'Pasted list' });
  const { id, done } = await startSearch(services, actor, {
    question: { words: 'barrier closure saltmarsh' },
    catalogues: [shoreline],
  });
  await done;
  const { rows } = await found(db, actor, id, { count: 7 });
  const { jobId } = await gatherFound(services, actor, id, { works: rows.map((r) => r.id) });
  await jobEnds(db, actor.workspaceId, jobId);
}
