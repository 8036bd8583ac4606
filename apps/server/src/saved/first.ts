/** The saved searches a new workspace begins with, for all its members. */
import { v7 as uuidv7 } from 'uuid';
import type { Db } from '../database/connect.ts';
import { within } from '../database/within.ts';
import { entries } from '../lists/tables.ts';
import type { SavedValue } from './store.ts';

const FIRST: { name: string; q: string; describes: string }[] = [
  { name: 'Added this week', q: 'added:7d', describes: 'What came in during the last seven days' },
  { name: 'Never read', q: 'state:none or state:"to read"', describes: 'What you have not begun to read' },
  { name: 'Without a file', q: '-has:file', describes: 'Records whose document is not here' },
  { name: 'In no collection', q: 'is:loose', describes: 'What nobody has filed yet' },
  {
    name: 'Cited but unread',
    q: 'is:cited -state:read',
    describes: 'What sources here cite, and you have not read to the end',
  },
  { name: 'Marked, but in no collection', q: 'has:mark is:loose', describes: 'What was read and never filed' },
];

export async function keepFirstSearches(tx: Db, workspaceId: string, madeBy: string): Promise<void> {
  const values = FIRST.map(({ name, q, describes }): SavedValue => ({
    name,
    owner: null,
    describes,
    keywords: [],
    ask: { q },
    folder: null,
    madeBy,
    madeAt: new Date().toISOString(),
  }));
  await within(tx, workspaceId).insert(
    entries,
    ...values.map((value) => ({ id: uuidv7(), list: 'saved' as const, value })),
  );
}
