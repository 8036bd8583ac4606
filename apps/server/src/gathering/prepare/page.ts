/** A page of the web, fetched or as a browser had it: what it states of itself, or the works of it that were chosen. */
import { readFile } from 'node:fs/promises';
import type { ReadPage } from '@pandecta/core/pages';
import { personOf, withoutMarkup } from '@pandecta/core/source';
import { cut } from '@pandecta/core/text';
import { pictureType } from '@pandecta/core/formats';
import { keepPage } from '../../files/keep-page.ts';
import { keepPicture } from '../../files/keep-picture.ts';
import { readPdf } from '../../files/read-pdf.ts';
import { Unreachable } from '../../fetching/fetch.ts';
import type { PageInput, TypedInput } from '../inputs.ts';
import {
  candidate,
  knownBy,
  message,
  type CameFrom,
  type Candidate,
  type Prepared,
  type Preparing,
} from './candidate.ts';

/** What was read of the page as a source, seen today, with the page itself. */
export async function candidateOf(
  { services, workspace, index }: Preparing,
  read: ReadPage,
  html: string,
  origin: CameFrom,
): Promise<Candidate> {
  const address = read.record.URL ?? origin.found?.address ?? '';
  const name = `${cut(withoutMarkup(read.record.title ?? address), 120)}.html`;
  const id = await keepPage(services, workspace, { html, address, name });
  const listed = read.items.length > 1 ? { items: read.items } : {};
  const accessed = { 'date-parts': [new Date().toISOString().slice(0, 10).split('-').map(Number)] };
  const provenance = { ...read.provenance, accessed: { from: 'person' as const, sure: 1 } };
  return candidate(index, { ...read.record, accessed }, provenance, {
    origin: { ...origin, found: { ...origin.found, ...(read.pdf && { pdf: read.pdf }) }, ...listed },
    subjects: read.subjects,
    ...(id && { beside: [{ id, name }] }),
  });
}

/** A link: the page is fetched and read; where it cannot be, the address waits in the intake. */
export async function prepareLink(way: Preparing, input: TypedInput): Promise<Prepared> {
  const { services, index } = way;
  const address = input.part.value ?? input.part.text;
  const came = input.part.text;
  try {
    const page = await way.visits.get(address);
    if (page.status >= 400)
      throw new Unreachable(`${new URL(address).host} answered ${page.status}`, page.status < 500);
    const read = await services.workers.run('readPage', { html: page.text, address: page.address });
    if (read.oembed) await fillByOembed(way, read);
    const one = await candidateOf(way, read, page.text, { came, spans: [], found: { address: page.address } });
    return { input, format: 'a page', messages: [], candidates: [one] };
  } catch (error) {
    if (!(error instanceof Unreachable)) throw error;
    const record = { type: 'webpage' as const, URL: address };
    const one = candidate(index, record, knownBy(record, 'person', 1), {
      origin: { came, spans: [], lookedUp: error.refused ? 'not found' : 'silent', trouble: error.message },
    });
    const says = message(input, 'page-unreachable', error.message, 'the address is kept');
    return { input, format: 'a link', messages: [says], candidates: [one] };
  }
}

/** What a page's oEmbed says (oembed.com, 1.0) of a video or a picture: who made it, and on whose site it is. */
async function fillByOembed({ visits }: Preparing, { record, provenance, oembed }: ReadPage): Promise<void> {
  const reply = await visits.get(oembed!, { accept: 'application/json', most: 200_000 }).catch(() => undefined);
  let said: Record<string, unknown>;
  try {
    said = JSON.parse(reply?.text ?? '') as Record<string, unknown>;
  } catch {
    return;
  }
  const put = (field: 'title' | 'container-title' | 'author' | 'type', value: unknown): void => {
    if (value === undefined || record[field] !== undefined) return;
    (record as Record<string, unknown>)[field] = value;
    provenance[field] = { from: 'stated on the page', sure: 0.85 };
  };
  const text = (v: unknown): string | undefined => (typeof v === 'string' && v.trim() ? cut(v.trim(), 500) : undefined);
  put('title', text(said.title));
  put('container-title', text(said.provider_name));
  const author = text(said.author_name);
  put('author', author && [personOf(author)]);
  if (record.type === 'webpage' && said.type === 'video') record.type = 'motion_picture';
  if (record.type === 'webpage' && said.type === 'photo') record.type = 'graphic';
}

export async function preparePage(way: Preparing, input: PageInput): Promise<Prepared> {
  const { services, index } = way;
  const { address, sha256, items } = input.page;
  const html = await readFile(services.storage.path(sha256), 'utf8');
  const read = await services.workers.run('readPage', { html, address });
  const origin = { found: { address } };
  const chosen = (items ?? []).flatMap((i) => read.items[i] ?? []);
  const candidates = chosen.length
    ? chosen.map((record) => candidate(index, record, knownBy(record, 'stated on the page', 0.85), { origin }))
    : [await besides(way, input, await candidateOf(way, read, html, origin))];
  return { input, format: 'a page', messages: [], candidates };
}

/** What the browser sent with the page: the PDF it links, by the session it has there, and how the page looked. */
async function besides({ services, workspace }: Preparing, input: PageInput, one: Candidate): Promise<Candidate> {
  const { picture, pdf } = input.page;
  const named = (end: string): string => `${cut(withoutMarkup(one.record.title ?? input.name), 120)}.${end}`;
  const beside = [...(one.beside ?? [])];
  if (pdf) {
    const file = { ...pdf, name: named('pdf'), path: services.storage.path(pdf.sha256) };
    const read = await readPdf(services, workspace, file, async () => {});
    if (read.state !== 'damaged') beside.unshift({ id: read.fileId, name: file.name });
  }
  if (picture) {
    const start = await readFile(services.storage.path(picture.sha256));
    const type = pictureType(start) ?? 'image/png';
    const file = { ...picture, name: named(type === 'image/png' ? 'png' : 'jpg') };
    beside.push(await keepPicture(services, workspace.id, file, type));
  }
  return { ...one, beside };
}
