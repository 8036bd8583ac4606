import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { Changed, FacetReply, NarrowReply, Problem, SourcePage } from '@pandecta/contract';
import type { SourceRecord } from '@pandecta/core/source';
import { derived, deriveAnew } from '../testing/rebuilt.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let chapter: string;

const RECORDS = [
  {
    type: 'article-journal',
    title: 'Who Closes the Gate?',
    author: [{ family: 'Okonjo', given: 'Marit' }],
    issued: { 'date-parts': [[2014]] },
    abstract: 'Licences for a tidal barrier leave the moment to the operator.',
    DOI: '10.5555/jwsl.2014.0223',
    'container-title': 'Journal of Water and Shore Law',
  },
  {
    type: 'book',
    title: 'Silt: Résumé of an estuary',
    author: [{ family: 'Müller', given: 'Jörg' }],
    issued: { 'date-parts': [[1995]] },
    publisher: 'Quillback Press',
  },
  {
    type: 'legal_case',
    title: 'Ottery v Northmere Drainage District',
    issued: { 'date-parts': [[1976, 2, 17]] },
    authority: 'High Court of the Estuaries',
  },
  {
    type: 'article-journal',
    title: 'The barrier and the tidal marsh',
    author: [{ family: 'Vance', given: 'Ines' }],
    issued: { 'date-parts': [[2001]] },
    note: 'studies of closing',
  },
  {
    type: 'manuscript',
    title: 'Letter on the ebb',
    author: [{ family: 'Okonjo-Reed', given: 'Ephraim' }],
    issued: { 'date-parts': [[1872, 2, 18]] },
  },
];

beforeAll(async () => {
  server = await startTestServer({ alone: true });
  me = await server.person('steward');
  const ids: string[] = [];
  for (const record of RECORDS) ids.push((await me.at<Changed>('POST', '/sources', { record })).id!);
  await me.at('POST', '/tagging', { ids: ids.slice(0, 2), name: 'used', present: true });
  await me.at('POST', '/tagging', { ids: [ids[1]], name: 'Sediment budget', present: true });
  chapter = (await me.at<Changed>('POST', '/collections', { name: 'Chapter 2' })).id!;
  await me.at('POST', '/filing', { ids: ids.slice(0, 3), collections: [chapter], present: true });
  await me.at('POST', '/reading', { ids: [ids[3]], state: 'to read' });
  await server.settle();
});
afterAll(() => server.close());

const GATE = 'Who Closes the Gate?';
const SILT = 'Silt: Résumé of an estuary';
const CASE = 'Ottery v Northmere Drainage District';
const MARSH = 'The barrier and the tidal marsh';
const LETTER = 'Letter on the ebb';

describe('the ask line finds', () => {
  test.each([
    ['barrier', [MARSH, GATE]],
    ['"tidal barrier"', [GATE]],
    ['barrier -operator', [MARSH]],
    ['closing gates', [GATE]],
    ['resume', [SILT]],
    ['RÉSUMÉ', [SILT]],
    ['muller', [SILT]],
    ['studying', [MARSH]],
    ['title:barrier', [MARSH]],
    ['author:okonjo', [GATE, LETTER]],
    ['author:"Jörg Müller"', [SILT]],
    ['year:2001', [MARSH]],
    ['year:1976-2001', [CASE, SILT, MARSH]],
    ['year:<1900', [LETTER]],
    ['year:2001-', [MARSH, GATE]],
    ['kind:case', [CASE]],
    ['kind:"journal article"', [MARSH, GATE]],
    ['kind:Ms', [LETTER]],
    ['tag:used', [SILT, GATE]],
    ['tag:sedim', [SILT]],
    ['tag:used -tag:"sediment budget"', [GATE]],
    ['in:"Chapter 2" -kind:case', [SILT, GATE]],
    ['doi:10.5555/JWSL.2014.0223', [GATE]],
    ['doi:10.5555', [GATE]],
    ['file:none', [LETTER, CASE, SILT, MARSH, GATE]],
    ['state:"to read"', [MARSH]],
    ['silt or ebb', [LETTER, SILT]],
    ['(silt or ebb) author:okonjo', [LETTER]],
    ['estuar*', [CASE, SILT]],
    ['nothing-of-the-sort', []],
    ['tag:unheard', []],
  ])('%s', async (q, expected) => expect(await me.titles(q)).toEqual([...expected].sort()));

  test('beginnings while one types, and whole words after', async () => {
    expect(await me.titles('barr', '&typing=true')).toEqual([MARSH, GATE].sort());
    expect(await me.titles('barr')).toEqual([]);
  });

  test('the words in titles first, and shows where else they stand', async () => {
    const { rows: found } = await me.ask('barrier');
    expect(found.map((r) => r.record.title)).toEqual([MARSH, GATE]);
    expect(found[1]!.hits[0]).toMatchObject({ where: 'Abstract' });
    expect(found[1]!.hits[0]!.text.slice(found[1]!.hits[0]!.lit[0]!.start, found[1]!.hits[0]!.lit[0]!.end)).toBe(
      'barrier',
    );
  });

  test('all the words in the title before any of them in a shorter record', async () => {
    const reader = await server.person('steward');
    await reader.import({
      'rank.ris':
        'TY  - BOOK\nTI  - Closure\nAU  - Barrier, Ada\nER  - \n' +
        `TY  - JOUR\nTI  - On the frequency of barrier closure in a long series of winters\nAB  - ${'closure of the gates and '.repeat(60)}\nER  - \n`,
    });
    await server.settle();
    const found = await reader.ask('barrier closure');
    expect(found.rows.map((r) => r.record.title)).toEqual([
      'On the frequency of barrier closure in a long series of winters',
      'Closure',
    ]);
  });

  test('and says what it could not read, without stopping', async () => {
    const page = await me.ask('colour:red "unclosed');
    expect(page.notes.map((n) => n.says)).toEqual([
      '“colour” is not a field; it was searched as a word',
      'This quotation does not close; it was read to the end',
    ]);
  });

  test.each([
    "'",
    '\\',
    "a'b",
    '!',
    '&|',
    '<->',
    ':*',
    '\u0000',
    '"" ""',
    '((((',
    '-',
    'year:',
    'tag:""',
    'in:',
    '字',
    "o'brien's",
  ])('no odd text breaks it: %j', async (q) => {
    const reply = await me.call('GET', `/w/${me.workspace}/sources?typing=true&q=${encodeURIComponent(q)}`);
    expect(reply.status).toBe(200);
  });
});

test('sorting by several keys, in stretches, and where a source stands in the order', async () => {
  const page = await me.at<{ rows: { record: { title: string } }[] }>('GET', '/sources?sort=kind,-year');
  expect(page.rows.map((r) => r.record.title)).toEqual([SILT, GATE, MARSH, CASE, LETTER]);
  const whole = await me.at<SourcePage>('GET', '/sources?sort=title');
  for (const [at, { id }] of whole.rows.entries()) {
    const part = await me.at<SourcePage>('GET', `/sources?sort=title&from=${at}&count=2&find=${id}`);
    expect([part.from, part.at, part.total]).toEqual([at, at, RECORDS.length]);
    expect(part.rows.map((r) => r.id)).toEqual(whole.rows.slice(at, at + 2).map((r) => r.id));
  }
  const all = whole.rows.map((r) => r.id);
  const body = { sort: 'title', ids: [...all.toReversed(), crypto.randomUUID()] };
  const { places } = await me.at<{ places: number[] }>('POST', '/places-in-answer', body);
  expect(places).toEqual([...all.map((_, at) => at).toReversed(), -1]);
  const ids = await me.at<{ ids: string[] }>('GET', '/ids?sort=title&from=1&count=3');
  expect(ids.ids).toEqual(whole.rows.slice(1, 4).map((r) => r.id));
});

test('sorted by what is said of them: rating, reading state and marks, each member by their own', async () => {
  const ids = new Map((await me.ask('')).rows.map((r) => [r.record.title!, r.id]));
  const of = (...titles: string[]): { ids: string[] } => ({ ids: titles.map((t) => ids.get(t)!) });
  await me.at('POST', '/ratings', { ...of(SILT), rating: 2 });
  await me.at('POST', '/ratings', { ...of(CASE), rating: 5 });
  await me.at('POST', '/reading', { ...of(MARSH), state: 'reading' });
  await me.at('POST', '/reading', { ...of(GATE), state: 'read' });
  const first = async (sort: string, who = me): Promise<string[]> =>
    (await who.ask('', `&sort=${sort},title`)).rows.slice(0, 2).map((r) => r.record.title!);
  expect(await first('rating')).toEqual([CASE, SILT]);
  expect(await first('-rating')).toEqual([SILT, CASE]);
  expect(await first('reading')).toEqual([MARSH, GATE]);
  const other = await server.person('reader', me.workspace);
  expect(await first('reading', other)).not.toEqual([MARSH, GATE]);
  expect((await me.ask('', '&sort=marks')).total).toBe(RECORDS.length);
  for (const state of [null]) await me.at('POST', '/reading', { ...of(MARSH, GATE), state });
  await me.at('POST', '/ratings', { ...of(SILT, CASE), rating: null });
});

test('in stretches of a ranked answer nothing comes twice and nothing is missing, and each is found at its place', async () => {
  const ranked = await me.at<SourcePage>('GET', '/sources?q=barrier%20or%20letter%20or%20silt%20or%20marsh');
  expect(ranked.total).toBeGreaterThan(2);
  const met: string[] = [];
  for (let from = 0; from < ranked.total; from += 1) {
    const { rows, at } = await me.at<SourcePage>(
      'GET',
      `/sources?q=barrier%20or%20letter%20or%20silt%20or%20marsh&from=${from}&count=1&find=${ranked.rows[from]!.id}`,
    );
    met.push(rows[0]!.id);
    expect(at).toBe(from);
  }
  expect(met).toEqual(ranked.rows.map((r) => r.id));
});

test('something is done to all that match a question but a few, as one change', async () => {
  const all = (await me.ask('')).rows.map((r) => r.id);
  const { says, changeId } = await me.at<Changed>('POST', '/tagging', {
    matching: { q: '-kind:book' },
    except: [(await me.ask('title:marsh')).rows[0]!.id],
    name: 'all but',
    present: true,
  });
  const tagged = await me.titles('tag:"all but"');
  expect(says).toBe(`Added the tag “all but” to ${tagged.length} sources`);
  expect(tagged).not.toContain(SILT);
  expect(tagged).not.toContain(MARSH);
  expect(tagged).toHaveLength(all.length - 2);
  await me.at('POST', `/changes/${changeId}/undo`);
  const among = await me.at<{ ids: string[] }>('POST', '/among', { ids: all, q: 'kind:book' });
  expect(among.ids).toEqual((await me.ask('kind:book')).rows.map((r) => r.id));
  for (const body of [
    { name: 'x', present: true },
    { ids: [], matching: {}, name: 'x', present: true },
  ])
    expect((await me.call<Problem>('POST', `/w/${me.workspace}/tagging`, body)).body.detail).toContain('either ids');
});

test('facets count what matches, narrow to it, and leave it out', async () => {
  const narrow = await me.at<NarrowReply>('GET', `/narrow?collection=${chapter}`);
  expect(narrow.total).toBe(3);
  expect(narrow.facets.find((f) => f.type === 'kind')!.values.map((v) => [v.name, v.count])).toEqual([
    ['Book', 1],
    ['Journal article', 1],
    ['Legal case', 1],
  ]);
  expect(narrow.years.map((y) => [y.year, y.count])).toEqual([
    [1976, 1],
    [1995, 1],
    [2014, 1],
  ]);
  expect(await me.titles('', '&include=kind%3Dbook')).toEqual([SILT]);
  expect(await me.titles('', '&exclude=kind%3Darticle-journal')).toEqual([LETTER, CASE, SILT].sort());
});

test('one workspace never finds what is in another', async () => {
  const stranger = await server.person('steward');
  for (const q of [
    'barrier',
    '"tidal barrier"',
    'author:okonjo',
    'doi:10.5555/jwsl.2014.0223',
    'tag:used',
    'in:"Chapter 2"',
  ])
    expect((await stranger.ask(q)).total).toBe(0);
});

test('derived tables rebuilt from the records are the same as those maintained', async () => {
  const { db } = server.app.services;
  const maintained = await derived(db, me.workspace);
  await deriveAnew(db, me.workspace);
  await server.settle();
  expect(await derived(db, me.workspace)).toEqual(maintained);
});

test('while words just written are not yet findable an answer to words says so, so that it is asked for again', async () => {
  const other = await server.person('contributor');
  expect(await other.ask('lamp')).toMatchObject({ total: 0, settling: false });
  const indexer = await server.app.services.database.pool.connect();
  await indexer.query('begin');
  await indexer.query('lock table source_text in share mode');
  await other.at<Changed>('POST', '/sources', { record: { type: 'book', title: 'The lamp room' } });
  expect(await other.ask('lamp')).toMatchObject({ total: 0, settling: true });
  expect(await other.ask('')).toMatchObject({ total: 1, settling: false });
  expect((await me.ask('lamp')).settling).toBe(false);
  await indexer.query('commit');
  indexer.release();
  await server.settle();
  expect(await other.ask('lamp')).toMatchObject({ total: 1, settling: false });
});

test('a line carries what it shows, not the abstract, notes and leftovers of its record', async () => {
  const { rows: lines } = await me.ask('title:marsh');
  expect(lines).toHaveLength(1);
  expect(Object.keys(lines[0]!.record)).not.toContain('note');
  const whole = await me.at<{ record: SourceRecord }>('GET', `/sources/${lines[0]!.id}`);
  expect(whole.record.note).toBe('studies of closing');
});

describe('while one types', () => {
  const typed = (q: string): Promise<string[]> => me.titles(q, '&typing=true');

  test('one or two letters find words of titles and names that begin so, and that word itself anywhere', async () => {
    expect(await typed('o')).toEqual([CASE, GATE, LETTER, SILT].sort());
    expect(await typed('ok')).toEqual([GATE, LETTER].sort());
    // “Licences” stands in an abstract alone.
    expect(await typed('li')).toEqual([]);
    expect(await typed('lic')).toEqual([GATE]);
    expect(await typed('of')).toEqual(expect.arrayContaining([SILT]) as string[]);
  });

  test('a letter more narrows what the words before it found, and where it is found is lit', async () => {
    expect(await typed('barrier g')).toEqual([GATE]);
    const { rows: lines } = await me.ask('barrier mars', '&typing=true');
    expect(lines.map((l) => l.record.title)).toEqual([MARSH]);
    const title = lines[0]!.record.title!;
    expect(lines[0]!.titleLit.map(({ start, end }) => title.slice(start, end))).toEqual(['barrier', 'marsh']);
  });
});

describe('what an answer is narrowed by', () => {
  let me: Person;
  beforeAll(async () => {
    me = await server.person('contributor');
    const kinds = ['book', 'book', 'report', 'thesis'];
    for (const [i, type] of kinds.entries())
      await me.at('POST', '/sources', { record: { type, title: `Tides ${i}`, publisher: `Press ${i % 2}` } });
    const ids = (await me.ask('', '&sort=title')).rows.map((r) => r.id);
    await me.at('POST', '/tagging', { ids: ids.slice(0, 2), name: 'used', present: true });
    await me.at('POST', '/tagging', { ids: ids.slice(1, 3), name: 'adverse', present: true });
  });
  const counts = async (query: string, type: string): Promise<Record<string, number>> => {
    const { facets } = await me.at<NarrowReply>('GET', `/narrow?${query}`);
    return Object.fromEntries(facets.find((f) => f.type === type)!.values.map((v) => [v.name, v.count]));
  };

  test('of a kind a source has one of, the others are counted as if none were chosen; of tags, what two at once would leave', async () => {
    expect(await counts('include=kind%3Dbook&facets=kind', 'kind')).toEqual({ Book: 2, Report: 1, Thesis: 1 });
    const { facets } = await me.at<NarrowReply>('GET', '/narrow?facets=tag');
    const used = facets[0]!.values.find((v) => v.name === 'used')!.key;
    expect(await counts(`include=tag%3D${used}&facets=tag`, 'tag')).toEqual({ used: 2, adverse: 1 });
    expect(await counts(`include=kind%3Dbook&include=tag%3D${used}&facets=kind`, 'kind')).toEqual({ Book: 2 });
  });

  test('only the kinds of facets that are looked at are counted, and all that are offered are named', async () => {
    const reply = await me.at<NarrowReply>('GET', '/narrow?facets=kind');
    expect(reply.facets.map((f) => f.type)).toEqual(['kind']);
    expect(reply.offered.map((o) => o.type)).toContain('publisher');
  });

  test('all values of one are told, and looked through', async () => {
    const all = await me.at<FacetReply>('GET', '/facet?facet=publisher');
    expect(all.values.map((v) => [v.name, v.count])).toEqual([
      ['Press 0', 2],
      ['Press 1', 2],
    ]);
    const some = await me.at<FacetReply>('GET', '/facet?facet=publisher&within=PRESS+1&include=kind%3Dbook');
    expect([some.inAll, some.values.map((v) => [v.name, v.count])]).toEqual([1, [['Press 1', 1]]]);
  });
});

test('where nothing matches it is told why: a word that finds nothing, what it is narrowed to, where it is looked for', async () => {
  const person = await server.person('contributor');
  await person.import({
    'two.ris': ['Ebb and flood', 'Silt and gate'].map((t) => `TY  - BOOK\nTI  - ${t}\nER  - \n`).join(''),
  });
  await server.settle();
  const why = async (q: string, more = ''): Promise<string[]> => (await person.ask(q, more)).why ?? [];
  expect(await why('ebb xylophone')).toEqual(['“xylophone” finds nothing by itself.']);
  expect(await why('ebb silt')).toEqual(['Each of “ebb” and “silt” finds something; no source has all of them.']);
  expect(await why('ebb', '&include=kind%3Darticle-journal')).toEqual([
    'Without what it is narrowed to, 1 source matches.',
  ]);
  expect(await why('ebb', '&scope=bin')).toEqual(['Without being looked for in the bin, 1 source matches.']);
  expect(await why('ebb', '&look=pages')).toEqual(['Looked for everywhere, 1 source matches.']);
  expect(await why('ebb')).toEqual([]);
});
