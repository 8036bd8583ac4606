import { sql } from 'drizzle-orm';
import type { FieldsOf } from '../searching/fields.ts';

export const relationFields: FieldsOf<'is:cited' | 'has:relation'> = {
  'is:cited': {
    condition: (_, { scope: { workspaceId }, sources }) =>
      sources(sql`select to_id from relations where workspace_id = ${workspaceId} and "as" = 'cites'`),
  },
  'has:relation': {
    condition: (_, { scope: { workspaceId }, sources }) =>
      sources(sql`select unnest(array[from_id, to_id]) from relations where workspace_id = ${workspaceId}`),
  },
};
