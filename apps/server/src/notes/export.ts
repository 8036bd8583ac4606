/** Notes as files. */
import type { ExportNotes } from '@pandecta/contract';
import { NOTE_INFO, type ExportedNote } from '@pandecta/core/note-export';
import { formatNumber } from '@pandecta/core/wording';
import type { Acting } from '../access/principal.ts';
import { Refusal } from '../errors.ts';
import type { Services } from '../services.ts';
import { idsAsked } from './asking.ts';
import { notesAsSeen } from './store.ts';

const MOST_EXPORTED = 5000;
const STRETCH = 200;

export async function writtenNotes(
  services: Services,
  caller: Acting,
  { format, ...asked }: ExportNotes,
): Promise<{ bytes: Uint8Array; mediaType: string; name: string }> {
  const ids = await idsAsked(services, caller, asked, MOST_EXPORTED);
  if (ids.length > MOST_EXPORTED) throw new Refusal('invalid', `at most ${formatNumber(MOST_EXPORTED)} notes are written to one file`); // prettier-ignore
  const notes: ExportedNote[] = [];
  for (let from = 0; from < ids.length; from += STRETCH)
    for (const { about, sources, leadsHere: _, dated: __, ...note } of await notesAsSeen(
      services.db,
      caller.actor,
      ids.slice(from, from + STRETCH),
    ))
      // prettier-ignore
      notes.push({
        ...note,
        about: about.map(({ name, kind }) => ({ name, kind })),
        sources: sources.map(({ id: source, name, title, cited }) => ({ id: source, name, title, cited })),
      });
  const { mediaType, extension } = NOTE_INFO[format];
  return { bytes: await services.workers.run('writeNotes', { notes, format }), mediaType, name: `notes.${extension}` };
}
