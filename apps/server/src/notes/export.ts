/** Notes as files. */
import type { ExportNotes } from '@pandecta/contract';
import { NOTE_INFO, type ExportedNote } from '@pandecta/core/note-export';
import { formatNumber } from '@pandecta/core/wording';
import type { Acting } from '../access/principal.ts';
import { Refusal } from '../errors.ts';
import type { Services } from '../services.ts';
import { notesAsked } from './asking.ts';
import { noteAsSeen } from './store.ts';

const MOST_EXPORTED = 5000;
const STRETCH = 200;

export async function writtenNotes(
  services: Services,
  caller: Acting,
  { format, ...asked }: ExportNotes,
): Promise<{ bytes: Uint8Array; mediaType: string; name: string }> {
  const ids: string[] = [];
  for (let place = 0; ; place += STRETCH) {
    const { notes, total } = await notesAsked(services, caller, { ...asked, sort: ['title'], place, count: STRETCH });
    if (total > MOST_EXPORTED) throw new Refusal('invalid', `at most ${formatNumber(MOST_EXPORTED)} notes are written to one file`); // prettier-ignore
    ids.push(...notes.map((n) => n.id));
    if (notes.length < STRETCH) break;
  }
  const notes: ExportedNote[] = [];
  for (const id of ids) {
    const { about, sources, leadsHere: _, dated: __, ...note } = await noteAsSeen(services.db, caller.actor, id);
    notes.push({
      ...note,
      about: about.map(({ name, kind }) => ({ name, kind })),
      sources: sources.map(({ id: source, name, title, cited }) => ({ id: source, name, title, cited })),
    });
  }
  const { mediaType, extension } = NOTE_INFO[format];
  return { bytes: await services.workers.run('writeNotes', { notes, format }), mediaType, name: `notes.${extension}` };
}
