/** Documents with their marks; marks across sources; the senses marks have. */
import { createHash } from 'node:crypto';
import { routes } from '@pandecta/contract';
import { numbersOf, readInside } from '../files/numbers.ts';
import { correctedOf } from '../files/scans/anew.ts';
import { findFileOf } from '../files/store.ts';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';
import { marksAcross } from './across.ts';
import { annotatedPdf } from './annotated.ts';
import { readAnnotations, unreadAnnotations } from './coming.ts';
import { editSense, makeSense, mergeSense, orderSenses, removeSense, sensesOf } from './senses.ts';
import { editMark, makeMark, removeMark, shareMark } from './service.ts';
import { drawn, picturedBy } from './picture.ts';
import { marksOf } from './store.ts';

export function markRoutes(declare: Declare, services: Services): void {
  const { db } = services;
  const { marks, senses } = routes;
  declare(marks.document, async ({ workspace, actor, params: { source, file: id } }) => {
    const file = await findFileOf(db, actor, source, id);
    await readInside(services, workspace.id, file.id);
    const here = { sourceId: source, fileId: file.id };
    const numbers = (await numbersOf(db, workspace.id, [here]))(here);
    return {
      ...here,
      name: file.name,
      state: file.state,
      mediaType: file.mediaType,
      pages: file.pages,
      numbers,
      marks: await marksOf(db, actor, source, file.id, numbers),
      corrected: await correctedOf(db, workspace.id, file.id),
      annotations: await unreadAnnotations(db, workspace.id, source, file.id),
      senses: await sensesOf(db, actor),
    };
  });
  declare(marks.make, ({ actor, params, body }) => makeMark(services, actor, params, body));
  declare(marks.edit, ({ actor, params, body }) => editMark(services, actor, params.mark, body));
  declare(marks.remove, ({ actor, params }) => removeMark(services, actor, params.mark));
  declare(marks.share, ({ actor, params }) => shareMark(services, actor, params.mark));
  declare(marks.picture, async ({ actor, params, request, reply }) => {
    const what = await picturedBy(services, actor, params.mark);
    const etag = `"${createHash('sha256').update(JSON.stringify(what)).digest('hex').slice(0, 32)}"`;
    // Shown only to who may still see it: each time the server is asked.
    void reply.headers({ etag, 'cache-control': 'private, no-cache' }).type('image/png');
    if (request.headers['if-none-match']?.includes(etag)) return reply.status(304).send();
    return reply.send(await drawn(services, what));
  });
  declare(marks.readAnnotations, (call) => readAnnotations(services, call, call.params.source, call.params.file));
  declare(marks.annotated, async ({ actor, params: { source, file: id }, query, reply }) => {
    const file = await findFileOf(db, actor, source, id);
    const bytes = await annotatedPdf(services, actor, { source, file }, query.personal === 'yes');
    const name = file.name.replace(/(?:\.pdf)?$/i, ' (with marks).pdf');
    return reply
      .type('application/pdf')
      .header('content-disposition', `attachment; filename*=UTF-8''${encodeURIComponent(name)}`)
      .send(Buffer.from(bytes));
  });
  declare(marks.list, (call) => marksAcross(services, call, call.body));

  declare(senses.list, async ({ actor }) => ({ senses: await sensesOf(db, actor) }));
  declare(senses.make, (call) => makeSense(services, call, call.body));
  declare(senses.edit, (call) => editSense(services, call, call.params.sense, call.body));
  declare(senses.remove, (call) => removeSense(services, call, call.params.sense));
  declare(senses.merge, (call) => mergeSense(services, call, call.params.sense, call.body.into));
  declare(senses.order, (call) => orderSenses(services, call, call.body.senses));
}
