/** What a browser sends: a page as it has it, or the PDF it shows. */
import { Readable } from 'node:stream';
import type { Clip, Clipped } from '@pandecta/contract';
import { isPdf, pictureType } from '@pandecta/core/formats';
import { lacksInWords, lacksOf } from '@pandecta/core/intake';
import { withoutMarkup } from '@pandecta/core/source';
import { cut } from '@pandecta/core/text';
import { formatNumber } from '@pandecta/core/wording';
import { Refusal } from '../errors.ts';
import { pdfNameIn } from '../files/fetch-pdf.ts';
import type { Actor } from '../access/principal.ts';
import type { Services } from '../services.ts';
import type { Input, Kept } from './inputs.ts';
import { startImport, type Setting } from './start.ts';

/** Read at once, so that whoever clips is told what it is and what it lacks. */
export async function bringClip(services: Services, actor: Actor, clip: Clip): Promise<Clipped> {
  const { address, html, items, destination } = clip;
  const bring = async (input: Input, name: string): Promise<string> => {
    const title = `${name}, from the browser`;
    const setting: Setting = { way: 'browser', title, ...(destination && { destination }) };
    return (await startImport(services, actor, [input], setting)).importId;
  };
  const { picture, pdf } = await keepBeside(services, clip);
  if (!html) {
    if (!pdf) throw new Refusal('invalid', 'there is neither a page nor a PDF in it');
    const name = pdfNameIn(address);
    return { importId: await bring({ ...pdf, name, from: address }, name), title: name, missing: '' };
  }
  const { sha256 } = await services.storage.put(Readable.from([Buffer.from(html)]));
  const { record } = await services.workers.run('readPage', { html, address });
  const title = withoutMarkup(record.title ?? address);
  const name = cut(items?.length ? `${formatNumber(items.length)} from ${title}` : title, 200);
  const page = { address, sha256, ...(items && { items }), ...(picture && { picture }), ...(pdf && { pdf }) };
  const missing = items?.length ? '' : lacksInWords(lacksOf({ ...record, accessed: { literal: 'today' } }));
  return { importId: await bring({ name, page }, name), title: name, missing };
}

/** @throws Refusal where it is not what it is said to be */
async function keepBeside({ storage }: Services, { picture, pdf }: Clip): Promise<{ picture?: Kept; pdf?: Kept }> {
  const keep = async (base64: string, is: (bytes: Buffer) => boolean, what: string): Promise<Kept> => {
    const bytes = Buffer.from(base64, 'base64');
    if (!is(bytes)) throw new Refusal('invalid', `what came as ${what} is none`);
    return storage.put(Readable.from([bytes]));
  };
  return {
    ...(picture && { picture: await keep(picture, (b) => /png|jpeg/.test(pictureType(b) ?? ''), 'the picture') }),
    ...(pdf && { pdf: await keep(pdf, isPdf, 'the PDF') }),
  };
}
