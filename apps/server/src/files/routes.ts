/** The content of files, whole or in ranges, and the places of words in them. */
import { sql } from 'drizzle-orm';
import { routes } from '@pandecta/contract';
import { rectsOf, unpackWords } from '@pandecta/core/documents';
import { citedPlace } from '@pandecta/core/page-numbers';
import { asTyped, parseQuery, soughtIn, TEXT_FIELDS } from '@pandecta/core/query';
import { cut } from '@pandecta/core/text';
import { excerpt, findLit } from '@pandecta/core/words';
import { prefixOf } from '../database/lexemes.ts';
import { bytes, number, rows, text } from '../database/read.ts';
import { Refusal } from '../errors.ts';
import { arriving } from '../http/parts.ts';
import type { Declare } from '../http/route.ts';
import { documentTsquery } from '../searching/rows.ts';
import type { Services } from '../services.ts';
import { SNAPSHOT_TYPE } from './keep-page.ts';
import { addFile, editFile, linkFile, removeFile } from './of-source.ts';
import { correctLine, linesOfPage } from './corrections.ts';
import { recogniseAnew } from './scans/anew.ts';
import { hocrOf } from './scans/hocr.ts';
import { addPictures } from './scans/pictures.ts';
import { recognitionLanguages, setLanguages } from './scans/languages.ts';
import { keepPassword, passwordOf } from './passwords.ts';
import { plainPages } from './plain.ts';
import { renamed } from './names.ts';
import { numberPage, numbersOf } from './numbers.ts';
import { findFile, findFileOf } from './store.ts';

const MOST_HITS = 500;

export function fileRoutes(declare: Declare, services: Services): void {
  const { db, storage } = services;
  declare(routes.files.add, async (call) => {
    let instead: string | null = null;
    for await (const part of arriving(call.request, storage)) {
      if ('file' in part) {
        const name = cut(part.path.split(/[/\\]/).at(-1) || 'file', 200);
        return addFile(services, call, { source: call.params.source, ...part.file, name, instead });
      }
      // What it replaces goes before it.
      if (part.field === 'instead') instead = part.value;
    }
    throw new Refusal('no_files');
  });
  declare(routes.files.pictures, (call) => addPictures(services, call, call.params.source, call.request));
  declare(routes.files.link, (call) => linkFile(services, call, call.params.source, call.body));
  declare(routes.files.edit, (call) => editFile(services, call, call.params.source, call.params.file, call.body));
  declare(routes.files.remove, (call) => removeFile(services, call, call.params.source, call.params.file));
  declare(routes.files.number, (call) => numberPage(services, call, call.params.source, call.params.file, call.body));
  declare(routes.files.lines, async (call) => {
    await findFileOf(db, call.actor, call.params.source, call.params.file);
    return linesOfPage(services, call, call.params.file, call.query.page);
  });
  declare(routes.files.correct, async (call) => {
    await findFileOf(db, call.actor, call.params.source, call.params.file);
    return correctLine(services, call, call.params.source, call.params.file, call.body);
  });
  declare(routes.files.recogniseAnew, (call) =>
    recogniseAnew(services, call, call.params.source, call.params.file, call.body),
  );
  declare(routes.files.hocr, async ({ workspace, actor, params, reply }) => {
    const file = await findFileOf(db, actor, params.source, params.file);
    const written = await hocrOf(services, workspace.id, params.source, file);
    const name = renamed(file.name, '.hocr');
    return reply
      .type('application/xhtml+xml')
      .header('content-disposition', `attachment; filename*=UTF-8''${encodeURIComponent(name)}`)
      .send(written);
  });
  declare(routes.files.languages, ({ workspace }) => recognitionLanguages(db, workspace.id));
  declare(routes.files.setLanguages, ({ workspace, body }) => setLanguages(db, workspace.id, body.languages));
  declare(routes.files.plain, async ({ workspace, actor, params, query }) => {
    await findFileOf(db, actor, params.source, params.file);
    const here = { sourceId: params.source, fileId: params.file };
    return { pages: await plainPages(services, workspace.id, here, query) };
  });
  declare(routes.files.content, async ({ actor, params, request, reply }) => {
    const file = await findFile(db, actor, params.file);
    if (file.address) return reply.redirect(file.address);
    const total = file.bytes;
    const etag = `"${file.sha256}"`;
    void reply
      .headers({
        'accept-ranges': 'bytes',
        // Kept by the browser, but shown only to who may still see it: each time the server is asked.
        'cache-control': 'private, no-cache',
        etag,
        'content-disposition': `inline; filename*=UTF-8''${encodeURIComponent(file.name)}`,
        // Whatever a file holds, a browser runs none of it here.
        'content-security-policy': `sandbox; default-src 'none'${file.mediaType === SNAPSHOT_TYPE ? "; img-src data:; style-src 'unsafe-inline'" : ''}`,
        'x-content-type-options': 'nosniff',
      })
      .type(file.mediaType);
    if (request.headers['if-none-match']?.includes(etag)) return reply.status(304).send();
    const m = /^bytes=(\d*)-(\d*)$/.exec(request.headers.range ?? '');
    if (!m || (!m[1] && !m[2])) return reply.header('content-length', total).send(storage.read(file.sha256));
    const start = m[1] ? Number(m[1]) : Math.max(0, total - Number(m[2]));
    const end = m[1] && m[2] ? Math.min(Number(m[2]), total - 1) : total - 1;
    if (start > end) return reply.status(416).header('content-range', `bytes */${total}`).send();
    return reply
      .status(206)
      .headers({ 'content-range': `bytes ${start}-${end}/${total}`, 'content-length': end - start + 1 })
      .send(storage.read(file.sha256, { start, end }));
  });

  declare(routes.own.filePassword, ({ actor, params }) => passwordOf(services, actor, params.file));
  declare(routes.own.keepFilePassword, ({ actor, params, body }) =>
    keepPassword(services, actor, params.file, body.password),
  );

  declare(routes.files.within, async ({ workspace, actor, params, query }) => {
    await findFileOf(db, actor, params.source, params.file);
    const tree = parseQuery(query.q).tree;
    const sought = soughtIn(asTyped(tree), TEXT_FIELDS);
    const { any } = documentTsquery([prefixOf(workspace.number)], sought);
    if (!any) return { hits: [], total: 0 };
    const found = await rows(
      db,
      { number: number, text: text(), words: bytes },
      sql`
        select p.number, p.text, p.words from documents t join pages p on p.workspace_id = t.workspace_id and p.file_id = t.id and p.number = t.part
        where t.workspace_id = ${workspace.id} and t.kind = 'page' and t.id = ${params.file} and t.vector @@ ${any}::tsquery order by p.number limit ${MOST_HITS}`,
    );
    const here = { sourceId: params.source, fileId: params.file };
    const numbers = (await numbersOf(db, workspace.id, [here]))(here);
    const hits = found.flatMap((page) => {
      const words = unpackWords(page.words);
      return findLit(page.text, sought).map((at, _, lit) => {
        const rects = rectsOf(words, at.start, at.end);
        const cited = citedPlace(numbers, page.number, rects[0]?.y0);
        return { page: page.number, cited, ...excerpt(page.text, lit, at, 120), rects };
      });
    });
    return { hits: hits.slice(0, MOST_HITS), total: hits.length };
  });
}
