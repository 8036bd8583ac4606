/** What is asked for by files: how they are, or what they are called. */
import { sql } from 'drizzle-orm';
import { literally } from '../database/sql.ts';
import type { FieldsOf } from '../searching/fields.ts';

/** What `file:` asks for by a word; any other text is looked for in the names of files. */
const FILE_STATES: Partial<Record<string, string[]>> = {
  text: ['text'],
  yes: ['text', 'image only', 'other'],
  none: ['none'],
  no: ['none'],
  image: ['image only'],
};

export const fileFields: FieldsOf<'file' | 'has:file'> = {
  file: {
    condition(text, { scope: { workspaceId }, facet, sources }) {
      const states = FILE_STATES[text.toLowerCase().trim()];
      if (states) return facet('file', states);
      return sources(sql`select sf.source_id from source_files sf join files f on f.workspace_id = sf.workspace_id and f.id = sf.file_id
          where sf.workspace_id = ${workspaceId} and f.name ilike ${`%${literally(text)}%`}`);
    },
  },
  'has:file': { condition: async (_, { facet }) => ({ is: 'not', part: await facet('file', ['none']) }) },
};
