/** Decides for each candidate: new, already here, or a file for a source already here. */
import { createHash } from 'node:crypto';
import { sql } from 'drizzle-orm';
import { identifierKeys, isTellingTitle, titleKey, wholeKey } from '@pandecta/core/matching';
import { cut } from '@pandecta/core/text';
import { LONGEST_KEY } from '../indexing/derive.ts';
import type { Db } from '../database/connect.ts';
import { rows, text } from '../database/read.ts';
import { array } from '../database/sql.ts';
import type { Candidate } from './prepare.ts';

export interface Settled {
  fresh: Candidate[];
  /** Candidates that are a source already here or one that came before them in the batch. */
  known: { candidate: Candidate; source: string; title: string; because: string }[];
  /** Files to be attached to sources; those of fresh candidates are theirs already. */
  attach: { candidate: Candidate; source: string; title: string; because: string }[];
}

/** The keys by which a candidate may be known, the surest first, each with the words for a person. */
function keysOf(candidate: Candidate): { key: string; because: string }[] {
  const { record } = candidate;
  const out = identifierKeys(record).map((key) => ({
    key,
    because: `same ${key.slice(0, key.indexOf(':')).toUpperCase()}`,
  }));
  if (candidate.file) {
    if (record.title && isTellingTitle(record.title))
      out.push({ key: `title:${titleKey(record.title)}`, because: 'same title' });
    return out;
  }
  out.push({ key: fingerprint(candidate), because: 'the same record' });
  const whole = wholeKey(record);
  if (whole && record.title && isTellingTitle(record.title))
    out.push({ key: whole, because: 'same title, author, date and place' });
  return out;
}

/** A record as it was read, so that the same file dropped again is known even without identifiers. */
export function fingerprint(candidate: Candidate): string {
  return `read:${createHash('sha256')
    .update(JSON.stringify([candidate.record, candidate.subjects]))
    .digest('base64url')}`;
}

export async function settle(tx: Db, workspaceId: string, candidates: Candidate[]): Promise<Settled> {
  const out: Settled = { fresh: [], known: [], attach: [] };
  const here = await lookUp(tx, workspaceId, candidates);
  const filesHere = await lookUpFiles(tx, workspaceId, candidates);
  // References first: a PDF of the same drop then finds its record.
  const ordered = [...candidates.filter((c) => !c.file), ...candidates.filter((c) => c.file)];
  for (const candidate of ordered) {
    const owner = candidate.file && filesHere.get(candidate.file.id);
    if (owner) {
      out.known.push({ candidate, ...owner, because: 'the same file' });
      continue;
    }
    const keys = keysOf(candidate);
    const match = keys.find((k) => here.has(k.key));
    const found = match && here.get(match.key);
    if (found && candidate.file) {
      out.attach.push({ candidate, ...found, because: match.because });
      filesHere.set(candidate.file.id, found);
    } else if (found) out.known.push({ candidate, ...found, because: match.because });
    else {
      out.fresh.push(candidate);
      const self = { source: candidate.id, title: candidate.record.title ?? '' };
      for (const k of keys) here.set(k.key, self);
      if (!candidate.file && candidate.record.title && isTellingTitle(candidate.record.title))
        here.set(`title:${titleKey(candidate.record.title)}`, self);
      if (candidate.file) filesHere.set(candidate.file.id, self);
    }
  }
  return out;
}

type Here = Map<string, { source: string; title: string }>;

async function lookUp(tx: Db, workspaceId: string, candidates: Candidate[]): Promise<Here> {
  const keys = [...new Set(candidates.flatMap((c) => keysOf(c).map((k) => cut(k.key, LONGEST_KEY))))];
  const found = await rows(
    tx,
    { key: text(), source: text(), title: text() },
    sql`
    select k.key, k.source_id as source, coalesce(s.record->>'title', '') as title from source_keys k
    join sources s on s.workspace_id = k.workspace_id and s.id = k.source_id and s.presence = 'live'
    where k.workspace_id = ${workspaceId} and k.key = any(${array(keys, 'text')})`,
  );
  return new Map(found.map((f) => [f.key, f]));
}

async function lookUpFiles(tx: Db, workspaceId: string, candidates: Candidate[]): Promise<Here> {
  const ids = candidates.flatMap((c) => (c.file ? [c.file.id] : []));
  const found = await rows(
    tx,
    { id: text(), source: text(), title: text() },
    sql`
    select sf.file_id as id, s.id as source, coalesce(s.record->>'title', '') as title from source_files sf
    join sources s on s.workspace_id = sf.workspace_id and s.id = sf.source_id and s.presence = 'live'
    where sf.workspace_id = ${workspaceId} and sf.file_id = any(${array(ids, 'uuid')})`,
  );
  return new Map(found.map((f) => [f.id, f]));
}
