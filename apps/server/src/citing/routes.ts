/** Styles, citations and bibliographies; export to the open formats. */
import { PassThrough } from 'node:stream';
import { MOST_CITED, routes, type CiteRequest } from '@pandecta/contract';
import { EXPORT_INFO } from '@pandecta/core/formats';
import { PRINT_INFO } from '@pandecta/core/printing';
import type { SourceRecord } from '@pandecta/core/source';
import { Refusal } from '../errors.ts';
import type { Acting } from '../access/principal.ts';
import type { Declare } from '../http/route.ts';
import { chosenIds } from '../searching/chosen.ts';
import type { Services } from '../services.ts';
import { writtenMarks } from '../marks/across.ts';
import { findRecords } from '../records/store.ts';
import { withExportable } from '../records/stream.ts';
import { refuseWrong } from '../records/refuse-wrong.ts';
import type { CiteResult } from '../workers/tasks.ts';
import { Styles } from '@pandecta/debian/styles';

/** Texts say their encoding; in other formats it stands within, or is fixed. */
const typeOf = (mediaType: string): string =>
  mediaType.startsWith('text/') ? `${mediaType}; charset=utf-8` : mediaType;

export function citeRoutes(declare: Declare, services: Services): void {
  const { db, workers, config } = services;
  const styles = new Styles(config.stylesFolder, (folder) => workers.run('styles', folder));
  declare(routes.cite.styles, async ({ query }) => ({
    styles: await styles.find(query.like ?? ''),
    locales: await styles.locales(),
  }));
  const cited = async (call: Acting, body: CiteRequest): Promise<CiteResult> => {
    const { workspace } = call;
    const style = await styles.get(body.style);
    if (!style) throw new Refusal('no_such_style', body.style);
    const ids = await chosenIds(services, call, body, MOST_CITED);
    const records = await findRecords(db, workspace.id, ids, 'seen');
    const sources = ids.flatMap((id) => (records.has(id) ? { id, record: records.get(id)! } : []));
    if (!sources.length) return { entries: [], hangingIndent: false, unprinted: [] };
    try {
      return await workers.run('cite', {
        folder: config.stylesFolder,
        style: body.style,
        locale: body.locale,
        sources,
        inText: body.inText ?? false,
        items: body.items,
      });
    } catch (error) {
      throw new Refusal('style_failed', style.title, (error as Error).message);
    }
  };
  declare(routes.cite.cite, (call) => cited(call, call.body));
  declare(routes.cite.print, async (call) => {
    const { body, reply } = call;
    const { entries, hangingIndent } = await cited(call, body);
    if (!entries.length) throw new Refusal('invalid', 'the style prints nothing for these sources');
    const bytes = await workers.run('printed', { format: body.format, entries, hangingIndent });
    const { mediaType, extension } = PRINT_INFO[body.format];
    return reply
      .type(typeOf(mediaType))
      .header('content-disposition', `attachment; filename="bibliography.${extension}"`)
      .send(Buffer.from(bytes));
  });
  declare(routes.marks.export, async (call) => {
    const { body, reply } = call;
    const { bytes, mediaType, name } = await writtenMarks(services, call, body, async (ids) => {
      const { entries } = await cited(call, { ids, style: body.style });
      return new Map(entries.map((entry) => [entry.id, entry.text]));
    });
    return reply
      .type(typeOf(mediaType))
      .header('content-disposition', `attachment; filename="${name}"`)
      .send(Buffer.from(bytes));
  });
  declare(routes.cite.record, async ({ body: { record, style, locale } }) => {
    if (!(await styles.get(style))) throw new Refusal('no_such_style', style);
    refuseWrong(record);
    if (Object.values(record).includes(null)) throw new Refusal('invalid', 'a field that holds nothing is left out');
    const sources = [{ id: 'record', record: record as unknown as SourceRecord }];
    const { entries } = await workers.run('cite', { folder: config.stylesFolder, style, locale, sources });
    return { html: entries[0]?.html ?? '' };
  });
  declare(routes.cite.export, async (call) => {
    const { workspace, body, reply } = call;
    const ids = await chosenIds(services, call, body);
    const stopped = new AbortController();
    // What was written goes out while the rest is still being read.
    const out = new PassThrough();
    withExportable(db, workspace.id, ids, {
      run: (port, stop) => {
        out.once('close', () => stopped.abort());
        return workers.run('write', { port, format: body.format }, [port], AbortSignal.any([stop, stopped.signal]));
      },
      says: async (bytes) => void out.write(bytes),
      pulls: true,
    }).then(
      () => out.end(),
      (error: Error) => out.destroy(error),
    );
    const { mediaType, extension } = EXPORT_INFO[body.format];
    return reply
      .type(`${mediaType}; charset=utf-8`)
      .header('content-disposition', `attachment; filename="sources.${extension}"`)
      .send(out);
  });
}
