/** What a stranger, and a member who means harm, sends as fast as it is answered. */
import { connect, type Socket } from 'node:net';
import { headersOf, send, type Person } from './people.ts';

export interface Attack {
  name: string;
  /** So many at the same time. */
  lanes: number;
  once(base: string, as: Person, nth: number): Promise<unknown>;
}

const post = (
  base: string,
  path: string,
  body: string | Buffer,
  headers: Record<string, string> = {},
): Promise<unknown> =>
  fetch(`${base}/api${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', ...headers },
    body: body as string,
  }).then((r) => r.arrayBuffer());
const unknownKeys = `{${Array.from({ length: 60_000 }, (_, i) => `"k${i}":1`).join(',')}}`;
const brackets = '['.repeat(16 * 1024 ** 2);
const all = '{"matching":{}';

const form = (name: string, content: string): FormData => {
  const data = new FormData();
  data.append('through', 'straight');
  data.append('file', new Blob([content]), name);
  return data;
};
const ris = (title: string): string => `TY  - BOOK\nTI  - ${title}\nER  - \n`;
const HOSTILE_FILES: [string, string][] = [
  ['markup.ris', ris('<i '.repeat(100_000))],
  ['braces.bib', `@book{a, title={${'{'.repeat(100_000)}x${'}'.repeat(100_000)}}, note={${'}'.repeat(100_000)}`],
  ['deep.json', `[{"type":"book","custom":${'{"a":'.repeat(50_000)}1${'}'.repeat(50_000)}}]`],
  ['amp.ris', ris(`${'&'.repeat(200_000)}`)],
  ['list.txt', `${'Vance, I. (1999). '.repeat(5000)}`],
  ['page.html', `<html><body>${'<div>'.repeat(50_000)}`],
  ['xml.xml', `<modsCollection xmlns="http://www.loc.gov/mods/v3">${'<mods><titleInfo>'.repeat(50_000)}`],
  ['names.ris', `TY  - BOOK\n${'AU  - Vance, Ida\n'.repeat(20_000)}ER  - \n`],
  ['many.csv', `title,author\n${'x,y\n'.repeat(5_000)}`],
];
const upload = (nth: number): FormData => form(...HOSTILE_FILES[nth % HOSTILE_FILES.length]!);

const words = (q: string): string => `/sources?count=50&q=${encodeURIComponent(q)}`;
const QUESTIONS = [
  '-x '.repeat(660).trim(),
  Array.from({ length: 150 }, (_, i) => `w${i}`).join(' OR '),
  'a* b* c* d* e* f*',
  'title:estuary OR -title:harbour -person:a -year:1990..2000',
  '((((estuary OR harbour) marsh) OR (tidal -barrier)) -licence) "sediment closure"',
  'estuary barrier harbour marsh closure sediment tidal licence',
  '-estuary',
];

export const ATTACKS: Attack[] = [
  { name: 'nothing', lanes: 0, once: () => Promise.resolve() },
  {
    name: 'strangers: bodies of unknown keys, and of brackets',
    lanes: 8,
    once: (base, _, nth) => post(base, '/session', nth % 2 ? unknownKeys : brackets).catch(() => {}),
  },
  {
    name: 'strangers: guessing passwords',
    lanes: 20,
    once: (base, _, nth) =>
      post(base, '/session', JSON.stringify({ email: `p${nth}@sallow.example`, password: 'wrong wrong wrong' })),
  },
  {
    name: 'strangers: connections that say nothing, 2,000',
    lanes: 20,
    once: (base) =>
      new Promise<void>((resolve) => {
        const sockets: Socket[] = Array.from({ length: 100 }, () => {
          const socket = connect(Number(new URL(base).port), '127.0.0.1');
          socket.on('error', () => {});
          socket.write('POST /api/session HTTP/1.1\r\nhost: x\r\n');
          return socket;
        });
        setTimeout(() => {
          for (const s of sockets) s.destroy();
          resolve();
        }, 3000);
      }),
  },
  {
    name: 'a member: hard questions',
    lanes: 12,
    once: (base, as, nth) =>
      send(base, as, 'GET', words(QUESTIONS[nth % QUESTIONS.length]!)).then((r) => r.arrayBuffer()),
  },
  {
    name: 'a member: hostile files',
    lanes: 4,
    once: (base, as, nth) => send(base, as, 'POST', '/imports', upload(nth)).then((r) => r.arrayBuffer()),
  },
  {
    name: 'a member: all sources, exported and altered in a look',
    lanes: 4,
    once: (base, as, nth) =>
      (nth % 2
        ? send(base, as, 'POST', '/export', `${all},"format":"bibtex"}`)
        : send(
            base,
            as,
            'POST',
            '/altering/preview',
            `${all},"field":"title","way":"replace","find":"(a+)+b","expression":true,"value":"x"}`,
          )
      ).then((r) => r.arrayBuffer()),
  },
  {
    name: 'a member: large changes',
    lanes: 3,
    once: (base, as, nth) =>
      send(base, as, 'POST', '/tagging', `${all},"name":"bench ${nth % 3}","present":${nth % 2 === 0}}`).then((r) =>
        r.arrayBuffer(),
      ),
  },
  {
    name: 'a member: pages to be read, as large as may be',
    lanes: 4,
    once: (base, as, nth) =>
      post(
        base,
        `/w/${as.workspace}/clips`,
        JSON.stringify({
          address: 'https://a.example/',
          html: nth % 2 ? `<html>${'<p>x'.repeat(700_000)}` : `<html>${'<div>'.repeat(400)}${'<i '.repeat(900_000)}`,
        }),
        headersOf(as),
      ),
  },
  {
    name: 'a member: streams of news, 200 at once',
    lanes: 200,
    once: async (base, as) => {
      const stop = AbortSignal.timeout(5000);
      await fetch(`${base}/api/w/${as.workspace}/live`, { headers: headersOf(as), signal: stop })
        .then((r) => r.arrayBuffer())
        .catch(() => {});
    },
  },
];
