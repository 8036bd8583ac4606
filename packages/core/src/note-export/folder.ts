/** Notes as a folder of files, one a note, whose links lead from file to file. */
import { strToU8, zipSync } from 'fflate';
import { stringify } from 'yaml';
import type { HeadingKind } from '../headings/index.ts';
import type { DocNode } from '../notes/index.ts';
import { noteToMarkdown } from './markdown.ts';

export const NOTE_INFO = {
  markdown: { name: 'Markdown, a file a note', extension: 'zip', mediaType: 'application/zip' },
  json: { name: 'JSON', extension: 'json', mediaType: 'application/json' },
} as const;
export type NoteFileFormat = keyof typeof NOTE_INFO;

export interface ExportedNote {
  id: string;
  title: string;
  text: DocNode;
  event: string | null;
  about: { name: string; kind: HeadingKind }[];
  tags: string[];
  sources: { id: string; name: string; title: string; cited: string }[];
  by: string;
  /** ISO 8601. */
  made: string;
  changed: string;
  personal: boolean;
}

const LONGEST_NAME = 80;

/** A name a file may have everywhere, from a title; never that of another, whatever their case. */
export function fileNames(titles: readonly string[], extension: string): string[] {
  const taken = new Set<string>();
  return titles.map((title) => {
    const bare = title.normalize('NFC').replace(/[\u0000-\u001F\u007F<>:"/\\|?*[\]#^]+/g, ' ').replace(/\s+/g, ' ').trim().replace(/^\.+|[. ]+$/g, '').slice(0, LONGEST_NAME).replace(/[\uD800-\uDBFF]$/, '').trim() || 'Untitled note'; // prettier-ignore
    let name = bare;
    for (let n = 2; taken.has(name.toLowerCase()); n += 1) name = `${bare} ${n}`;
    taken.add(name.toLowerCase());
    return `${name}.${extension}`;
  });
}

/** The file of each note, by its name: front matter in YAML, then its text. */
export function notesAsMarkdown(notes: readonly ExportedNote[]): Map<string, string> {
  const names = fileNames(notes.map((n) => n.title), 'md'); // prettier-ignore
  const nameOf = new Map(notes.map((n, i) => [n.id, names[i]!]));
  return new Map(
    notes.map((note, i) => {
      const sources = new Map(note.sources.map((s) => [s.id, s.name]));
      const matter = {
        title: note.title,
        ...(note.event && { date: note.event }),
        ...(note.about.length && { about: note.about.map(({ name, kind }) => ({ name, kind })) }),
        ...(note.tags.length && { tags: note.tags }),
        ...(note.sources.length && { sources: note.sources.map(({ name, title, cited }) => ({ name, title, ...(cited && { page: cited }) })) }), // prettier-ignore
        author: note.by,
        created: note.made,
        changed: note.changed,
        ...(note.personal && { private: true }),
        id: note.id,
      };
      const body = noteToMarkdown(note.text, {
        addressOf: ({ to, id }) => (to === 'note' && nameOf.has(id) ? encodeURI(nameOf.get(id)!) : undefined),
        sourceOf: (id) => sources.get(id) ?? '',
      });
      return [names[i]!, `---\n${stringify(matter, { lineWidth: 0 })}---\n\n${body}`];
    }),
  );
}

/** @param notes in any order; the folder is a zip */
export function writeNotes(notes: readonly ExportedNote[], format: NoteFileFormat): Uint8Array {
  if (format === 'json') return strToU8(`${JSON.stringify(notes, null, 2)}\n`);
  return zipSync(Object.fromEntries([...notesAsMarkdown(notes)].map(([name, text]) => [name, strToU8(text)])));
}
