/** Links that are followed: the page is read, kept, found by its words, and leads on to what it lists and holds. */
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import type { Changed, IntakeDetail, IntakePage, SourceDetail, Started } from '@pandecta/contract';
import { makePdf } from '../testing/pdf.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let site: Server;
let server: TestServer;
let me: Person;
let pages: Record<string, string | Uint8Array>;
const PIXEL = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

beforeAll(async () => {
  site = createServer((request, response) => {
    const page = pages[request.url!];
    if (!page) return void response.writeHead(404).end();
    response.setHeader('content-type', /png$/.test(request.url!) ? 'image/png' : 'text/html').end(page);
  });
  await new Promise<void>((done) => site.listen(0, '127.0.0.1', done));
  server = await startTestServer({ hosts: `site.example=127.0.0.1:${(site.address() as AddressInfo).port}` });
});
beforeEach(async () => void (me = await server.person('contributor')));
afterAll(async () => {
  await server.close();
  site.close();
});

async function bring(text: string): Promise<IntakeDetail> {
  const { jobId } = await me.at<Started>('POST', '/gatherings', { text });
  await me.jobEnds(jobId);
  const { rows } = await me.at<IntakePage>('GET', '/intake');
  return me.at<IntakeDetail>('GET', `/intake/${rows[0]!.id}`);
}

test('a page is kept without its scripts, with its picture in it, and its words are found', async () => {
  pages = {
    '/news':
      '<!doctype html><html><body><article><h1>Gate stays open</h1><p>The quernstone was moved.</p><img src="/gate.png" alt=""><img src="/gone.png" alt=""><script>alert(1)</script></article></body></html>',
    '/gate.png': PIXEL,
  };
  const { source } = await bring('http://site.example/news');
  expect(source.files).toMatchObject([
    { name: 'Gate stays open.html', mediaType: 'text/html; charset=utf-8', state: 'text' },
  ]);
  const kept = await me.call<string>('GET', `/w/${me.workspace}/files/${source.files[0]!.id}/content`);
  expect(kept.headers.get('content-security-policy')).toBe(
    "sandbox; default-src 'none'; img-src data:; style-src 'unsafe-inline'",
  );
  expect(kept.body).toContain('<p>The quernstone was moved.</p>');
  expect(kept.body.match(/<img[^>]*>/g)).toEqual([expect.stringContaining('src="data:image/png;base64,')]);
  expect(kept.body).not.toContain('script');
  await me.at('POST', '/taking-in', { ids: [source.id] });
  await server.settle();
  expect(await me.titles('quernstone')).toEqual(['Gate stays open']);
  const within = await me.at<{ total: number }>(
    'GET',
    `/sources/${source.id}/files/${source.files[0]!.id}/within?q=quernstone`,
  );
  expect(within.total).toBe(1);
});

test('of a page that lists works one chooses, and those come in with where they were found', async () => {
  const line = (who: string, year: number, what: string): string =>
    `<li>${who} (${year}). ${what}. <i>Coastal Processes</i>, 12(3), 201–209.</li>`;
  pages = {
    '/list': `<html><body><h1>Further reading</h1><ol>${line('Vance, I.', 2009, 'Silt in small estuaries')}${line('Okonjo, M.', 2014, 'Who closes the gate')}${line('Quill, T.', 1998, 'Tidal restriction of creeks')}</ol></body></html>`,
  };
  const { source, origin } = await bring('http://site.example/list');
  expect(origin.items).toHaveLength(3);
  const { jobId } = await me.at<Started>('POST', `/intake/${source.id}/listed`, { items: [0, 2] });
  await me.jobEnds(jobId);
  const { rows } = await me.at<IntakePage>('GET', '/intake');
  expect(rows.map((r) => r.record.title).sort()).toEqual([
    'Further reading',
    'Silt in small estuaries',
    'Tidal restriction of creeks',
  ]);
  const one = await me.at<IntakeDetail>('GET', `/intake/${rows.find((r) => /^Silt/.test(r.record.title!))!.id}`);
  expect(one.origin.address).toBe('http://site.example/list');
  await expect(me.at('POST', `/intake/${source.id}/listed`, { items: [7] })).rejects.toThrow(
    'none of the works is chosen',
  );
});

test('a full text it leads to is fetched when one asks; what is none is told', async () => {
  const meta = (pdf: string): string =>
    `<html><head><meta name="citation_title" content="Edges"><meta name="citation_pdf_url" content="${pdf}"></head><body><p>Edges.</p></body></html>`;
  pages = {
    '/edges': meta('/edges%E0.pdf'),
    '/edges%E0.pdf': await makePdf([['Edges retreat where the ebb is held back.']]),
    '/broken': meta('/edges'),
  };
  const { source, origin } = await bring('http://site.example/edges');
  // An address may hold an escape that is none of UTF-8.
  expect(origin.pdf).toBe('http://site.example/edges%E0.pdf');
  await me.at('POST', `/intake/${source.id}/pdf`, {});
  const after = await me.at<SourceDetail>('GET', `/sources/${source.id}`);
  expect(after.files.map((f) => f.name).sort()).toEqual(['Edges.html', 'edges%E0.pdf']);
  const broken = await bring('http://site.example/broken');
  expect((await me.at<Changed>('POST', `/intake/${broken.source.id}/pdf`, {})).says).toBe(
    'The PDF could not be fetched: What site.example gives there is no PDF',
  );
});
