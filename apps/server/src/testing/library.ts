/** A small library with one of everything, for tests that speak to every route. */
import type { CatalogueList, MadeGatherKey, Search, WatchList } from '@pandecta/contract';
import { makePdf } from './pdf.ts';
import type { Person } from './server.ts';

/** What reaches out of a workspace, and in: a catalogue, where nobody answers, with a search and a watch of it; a key. */
async function outsideOf(steward: Person): Promise<Record<string, string>> {
  const address = 'http://127.0.0.1:9/sru';
  const list = await steward.at<CatalogueList>('POST', '/catalogues', { name: 'Theirs', protocol: 'sru-1.2', address });
  const asked = { question: { words: 'gate' }, catalogues: list.catalogues.map((c) => c.id) };
  const search = await steward.at<Search>('POST', '/outside', asked);
  const { watches } = await steward.at<WatchList>('POST', '/watches', { ...asked, name: 'Gates', every: 'week' });
  const { keys } = await steward.at<MadeGatherKey>('POST', '/gathering-keys', { name: 'laptop' });
  return { catalogue: asked.catalogues[0]!, search: search.id, watch: watches[0]!.id, key: keys[0]!.id };
}

/** @returns the ids of what stands in it, by the names that paths have for them */
export async function makeLibrary(steward: Person): Promise<Record<string, string>> {
  const report = await steward.import({
    'hours.pdf': await makePdf([['Hours of the lower gate', 'The keeper shut the gate at dusk.']]),
  });
  const [row] = (await steward.ask('')).rows;
  const at = <T>(method: string, path: string, body?: unknown): Promise<T> => steward.at<T>(method, path, body);
  const collection = (await at<{ id: string }>('POST', '/collections', { name: 'Gates' })).id;
  const { senses } = await at<{ senses: { id: string }[] }>('GET', `/sources/${row!.id}/files/${row!.fileId}`);
  const quote = { exact: 'the gate', prefix: '', suffix: '' };
  return {
    source: row!.id,
    file: row!.fileId!,
    import: report.id,
    job: report.job.id,
    change: report.changeId!,
    collection,
    placement: (await at<{ placements: { id: string }[] }>('GET', '/places')).placements[0]!.id,
    mark: (
      await at<{ id: string }>('POST', `/sources/${row!.id}/files/${row!.fileId}/marks`, {
        page: 1,
        sense: senses[0]!.id,
        quote,
        rects: [],
      })
    ).id,
    sense: senses[0]!.id,
    gloss: (await at<{ id: string }>('POST', `/sources/${row!.id}/glosses`, { text: 'Theirs to read' })).id,
    note: (await at<{ id: string }>('POST', '/notes', { title: 'Theirs', text: { type: 'doc', content: [] } })).id,
    heading: (await at<{ id: string }>('POST', '/headings', { name: 'Theirs', kind: 'theme' })).id,
    outline: (await at<{ id: string }>('POST', '/outlines', { name: 'Theirs', nodes: [] })).id,
    tag: await (async () => {
      await at('POST', '/tagging', { ids: [row!.id], name: 'theirs', present: true });
      return (await at<{ tags: { id: string }[] }>('GET', '/tags')).tags[0]!.id;
    })(),
    saved: (await at<{ id: string }>('POST', '/saved', { name: 'Theirs', ask: {}, shared: true })).id,
    folder: (await at<{ id: string }>('POST', '/folders', { name: 'Theirs', shared: true })).id,
    label: (await at<{ id: string }>('POST', '/labels', { name: 'Theirs', letter: 'T', tint: 'ochre' })).id,
    ...(await outsideOf(steward)),
  };
}
