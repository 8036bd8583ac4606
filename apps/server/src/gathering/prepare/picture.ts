/** A picture of pages: its text is recognised, and it goes on as the PDF that has both; the picture itself stays beside. */
import { keepPicture } from '../../files/keep-picture.ts';
import { renamed } from '../../files/names.ts';
import { languagesFor } from '../../files/scans/languages.ts';
import { pagesOfPicture, recognisePictures } from '../../files/scans/read.ts';
import type { FileInput } from '../inputs.ts';
import { leftOut, message, type Prepared, type Preparing } from './candidate.ts';
import { preparePdf } from './pdf.ts';

export async function preparePicture(way: Preparing, input: FileInput, mediaType: string): Promise<Prepared> {
  const { services, workspace, says } = way;
  const { sha256, bytes, name } = input;
  const pictures = await pagesOfPicture(services, services.storage.path(sha256));
  const read = pictures.length
    ? await recognisePictures(services, workspace, name, pictures, {
        languages: await languagesFor(services.db, workspace.id),
        says: (_, __, sentence) => says(`: ${sentence}`),
      })
    : undefined;
  if (!read) return leftOut(input, 'The picture is damaged, or too large for its text to be recognised');
  const prepared = await preparePdf(way, { ...input, name: renamed(name, '.pdf') }, read);
  const [one] = prepared.candidates;
  if (!one) return prepared;
  one.beside = [await keepPicture(services, workspace.id, { name, sha256, bytes }, mediaType)];
  const told = message(input, 'recognised', 'A picture of a page', 'its text was recognised; look it over', 'info');
  return { ...prepared, input, format: 'a picture', messages: [told, ...prepared.messages] };
}
