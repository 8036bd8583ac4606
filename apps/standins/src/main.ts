/** The outside services that ship with Pandecta: small, simulated, spoken to over the protocols the real ones use. */
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { setTimeout } from 'node:timers/promises';
import { CqlError } from './cql.ts';
import { moodOf, setMood, type Mood } from './moods.ts';
import { answerFeed, description, newTitles } from './opensearch.ts';
import { showMail, takeMail } from './mailbox.ts';
import { answerOai } from './oai.ts';
import { newOnTheShelf, PAGES } from './pages.ts';
import { resolveDoi } from './registry.ts';
import { fullTextOf } from './full-text.ts';
import { entry } from './shelf.ts';
import { answerSru } from './sru.ts';
import { answerWorks } from './works.ts';

const port = Number(process.env.PANDECTA_STANDINS_PORT ?? 4790);
/** Simulated days since the first: each one brings a few new works. */
let days = 0;

interface Answer {
  status?: number;
  type: string;
  body: string | Uint8Array;
}
const xml = (body: string, type = 'application/xml'): Answer => ({ type: `${type}; charset=utf-8`, body });

const server = createServer((request, response) => {
  void answer(request, response).catch((error: unknown) => {
    response
      .writeHead(error instanceof CqlError ? 400 : 500, { 'content-type': 'text/plain' })
      .end(`${String(error)}\n`);
  });
});

async function answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
  const url = new URL(request.url ?? '/', `http://${request.headers.host ?? 'standin'}`);
  const path = decodeURIComponent(url.pathname);
  if (request.method === 'POST') return void (await set(path, request, response));
  const name = path.split('/')[1] ?? '';
  const { mood, ms = 3000 } = moodOf(name);
  if (mood === 'slow') await setTimeout(ms);
  if (mood === 'silent') return;
  if (mood === 'fails') return void response.writeHead(500).end('Out of order\n');
  if (mood === 'busy') return void response.writeHead(429, { 'retry-after': '30' }).end('Too many questions\n');
  if (mood === 'garbage')
    return void response.writeHead(200, { 'content-type': 'application/xml' }).end('<records><record><<<');
  const made = await make(name, path, url, request);
  if (!made) return void response.writeHead(404, { 'content-type': 'text/plain' }).end('Nothing here\n');
  response.writeHead(made.status ?? 200, { 'content-type': made.type }).end(made.body);
}

async function make(name: string, path: string, url: URL, request: IncomingMessage): Promise<Answer | undefined> {
  const query = url.searchParams;
  const page = PAGES.find((p) => p.path === path);
  if (page && /packet/.test(request.headers.host ?? '')) return { type: 'text/html; charset=utf-8', body: page.html };
  switch (name) {
    case 'pdf':
      return pdfOf(path);
    case 'mail':
      return { type: 'text/html; charset=utf-8', body: showMail() };
    case 'shelf':
      return { type: 'text/html; charset=utf-8', body: newOnTheShelf(days) };
    case 'doi':
      return resolveDoi(path.slice('/doi/'.length), request.headers.accept ?? '');
    case 'shoreline':
      return xml(answerSru('shoreline', 'Shoreline Index', query, days));
    case 'northmere':
      if (path.endsWith('/oai'))
        return xml(answerOai('northmere', 'Northmere Catalogue', query, days, `${url.origin}${path}`));
      if (path.endsWith('/new.atom'))
        return xml(newTitles('northmere', 'Northmere Catalogue', days), 'application/atom+xml');
      return path.endsWith('/description.xml')
        ? xml(description('Northmere Catalogue', `${url.origin}/northmere`))
        : xml(answerFeed('northmere', 'Northmere Catalogue', query, days), 'application/atom+xml');
    case 'works':
      return { type: 'application/json', body: answerWorks(query, days, url.origin) };
    default:
      return undefined;
  }
}

/** The full text of a work, of which the stand-ins know no more than a page. */
async function pdfOf(path: string): Promise<Answer | undefined> {
  const found = entry('registry', path.replace(/^.*\/|\.pdf$/g, ''));
  if (!found?.hasPdf) return undefined;
  return { type: 'application/pdf', body: await fullTextOf(found.record) };
}

/** `POST /moods/NAME` and `POST /days` change how the stand-ins behave. */
async function set(path: string, request: IncomingMessage, response: ServerResponse): Promise<void> {
  let body = '';
  for await (const part of request) body += String(part);
  if (path === '/days') days = (JSON.parse(body) as { days: number }).days;
  else if (path.startsWith('/moods/')) setMood(path.slice('/moods/'.length), JSON.parse(body) as Mood);
  else return void response.writeHead(404).end();
  response.writeHead(204).end();
}

const mailPort = process.env.PANDECTA_MAILBOX_PORT;
const mailbox = mailPort ? takeMail(Number(mailPort)) : undefined;
server.listen(port, '127.0.0.1', () => process.send?.('ready'));
for (const end of ['SIGINT', 'SIGTERM', 'disconnect'] as const)
  process.on(end, () => {
    mailbox?.close();
    server.close(() => process.exit(0));
    server.closeAllConnections();
  });
