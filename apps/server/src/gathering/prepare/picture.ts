/** A picture of pages: its text is recognised, and it goes on as the PDF that has both; the picture itself stays beside. */
import { Readable } from 'node:stream';
import { pictureToPdf } from '@pandecta/debian/tesseract';
import { keepConfidence } from '../../files/confidence.ts';
import { keepPicture } from '../../files/keep-picture.ts';
import type { FileInput } from '../inputs.ts';
import { leftOut, message, type Prepared, type Preparing } from './candidate.ts';
import { preparePdf } from './pdf.ts';

export async function preparePicture(way: Preparing, input: FileInput, mediaType: string): Promise<Prepared> {
  const { services, workspace, says } = way;
  await says(': its text is being recognised');
  const recognised = await pictureToPdf(services.storage.path(input.sha256));
  if (!recognised) return leftOut(input, 'The picture is damaged, or too large for its text to be recognised');
  const stored = await services.storage.put(Readable.from([recognised.pdf]));
  const name = input.name.replace(/(?:\.\w{2,5})?$/, '.pdf');
  const prepared = await preparePdf(way, { ...input, ...stored, name });
  const [one] = prepared.candidates;
  if (!one) return prepared;
  if (one.file) await keepConfidence(services.db, workspace.id, one.file.id, recognised.pages);
  const { sha256, bytes } = input;
  one.beside = [await keepPicture(services, workspace.id, { name: input.name, sha256, bytes }, mediaType)];
  const read = message(input, 'recognised', 'A picture of a page', 'its text was recognised; look it over', 'info');
  return { ...prepared, input, format: 'a picture', messages: [read, ...prepared.messages] };
}
