/** Decides for each candidate: new, already here, or a file for a source already here. */
import { createHash } from 'node:crypto';
import { sql } from 'drizzle-orm';
import {
  areOneWork,
  compare,
  identifierKeys,
  isTellingTitle,
  LONGEST_KEY,
  titleKey,
  wholeKey,
} from '@pandecta/core/matching';
import type { SourceRecord } from '@pandecta/core/source';
import { cut } from '@pandecta/core/text';
import type { Db } from '../database/connect.ts';
import { json, rows, text } from '../database/read.ts';
import { array } from '../database/sql.ts';
import type { Candidate } from './prepare/index.ts';

export interface Settled<C extends Candidate = Candidate> {
  fresh: C[];
  /** Candidates that wait in the intake, whether they are here already or not. */
  waiting: C[];
  /** Candidates that are a source already here or one that came before them in the batch. */
  known: { candidate: C; source: string; title: string; because: string }[];
  /** Files to be attached to sources; those of fresh candidates are theirs already. */
  attach: { candidate: C; source: string; title: string; because: string }[];
}

/** The keys by which a candidate may be known, as they are kept, the surest first, each with the words for a person. */
const keysOf = (candidate: Candidate): Key[] =>
  wholeKeysOf(candidate).map((k) => ({ ...k, key: cut(k.key, LONGEST_KEY) }));

interface Key {
  key: string;
  because: string;
  /** A short title may be of another work: the whole records must agree as well. */
  isWeak?: boolean;
}

function wholeKeysOf(candidate: Candidate): Key[] {
  const { record } = candidate;
  const out: Key[] = identifierKeys(record).map((key) => ({
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
  if (whole && record.title)
    out.push({
      key: whole,
      because: 'same title, author, date and place',
      ...(!isTellingTitle(record.title) && { isWeak: true }),
    });
  return out;
}

/** A record as it was read, so that the same file dropped again is known even without identifiers. */
export function fingerprint(candidate: Candidate): string {
  return `read:${createHash('sha256')
    .update(JSON.stringify([candidate.record, candidate.subjects]))
    .digest('base64url')}`;
}

/**
 * @param waits whether a candidate, new or not, is to wait in the intake
 */
export async function settle<C extends Candidate>(
  tx: Db,
  workspaceId: string,
  candidates: C[],
  waits: (candidate: Candidate, isNew: boolean) => boolean = () => false,
): Promise<Settled<C>> {
  const out: Settled<C> = { fresh: [], waiting: [], known: [], attach: [] };
  const here = await lookUp(tx, workspaceId, candidates);
  const filesHere = await lookUpFiles(tx, workspaceId, candidates);
  const ofBatch = new Set<string>();
  // References first: a PDF of the same drop then finds its record.
  const ordered = [...candidates.filter((c) => !c.file), ...candidates.filter((c) => c.file)];
  for (const candidate of ordered) {
    const { record } = candidate;
    const keys = keysOf(candidate);
    const match = keys.find((k) => here.has(k.key) && (!k.isWeak || agree(record, here.get(k.key)!.record)));
    const owner = candidate.file && filesHere.get(candidate.file.id);
    const found = owner ?? (match && here.get(match.key));
    const because = owner ? 'the same file' : (match?.because ?? '');
    // What came twice in one gathering waits once.
    if (found && !ofBatch.has(found.source) && waits(candidate, false)) {
      keep(out.waiting, candidate, keys, false);
    } else if (found && candidate.file && !owner) {
      out.attach.push({ candidate, ...found, because });
      filesHere.set(candidate.file.id, found);
    } else if (found) out.known.push({ candidate, ...found, because });
    else keep(waits(candidate, true) ? out.waiting : out.fresh, candidate, keys, true);
  }
  return out;

  function keep(list: C[], candidate: C, keys: { key: string }[], isNew: boolean): void {
    list.push(candidate);
    ofBatch.add(candidate.id);
    const { record } = candidate;
    const self = { source: candidate.id, title: record.title ?? '', record };
    for (const k of keys) if (isNew || !ofBatch.has(here.get(k.key)?.source ?? '')) here.set(k.key, self);
    if (isNew && !candidate.file && candidate.record.title && isTellingTitle(candidate.record.title))
      here.set(cut(`title:${titleKey(candidate.record.title)}`, LONGEST_KEY), self);
    if (candidate.file) filesHere.set(candidate.file.id, self);
  }
}

type Here = Map<string, { source: string; title: string; record: SourceRecord }>;

const agree = (a: SourceRecord, b: SourceRecord): boolean => areOneWork(compare(a, b).verdict);

async function lookUp(tx: Db, workspaceId: string, candidates: Candidate[]): Promise<Here> {
  const keys = [...new Set(candidates.flatMap((c) => keysOf(c).map((k) => k.key)))];
  const found = await rows(
    tx,
    { key: text(), source: text(), title: text(), record: json<SourceRecord>() },
    sql`
    select k.key, k.source_id as source, coalesce(s.record->>'title', '') as title, s.record from source_keys k
    join sources s on s.workspace_id = k.workspace_id and s.id = k.source_id and s.presence = 'live'
    where k.workspace_id = ${workspaceId} and k.key = any(${array(keys, 'text')})`,
  );
  return new Map(found.map((f) => [f.key, f]));
}

async function lookUpFiles(tx: Db, workspaceId: string, candidates: Candidate[]): Promise<Here> {
  const ids = candidates.flatMap((c) => (c.file ? [c.file.id] : []));
  const found = await rows(
    tx,
    { id: text(), source: text(), title: text(), record: json<SourceRecord>() },
    sql`
    select sf.file_id as id, s.id as source, coalesce(s.record->>'title', '') as title, s.record from source_files sf
    join sources s on s.workspace_id = sf.workspace_id and s.id = sf.source_id and s.presence = 'live'
    where sf.workspace_id = ${workspaceId} and sf.file_id = any(${array(ids, 'uuid')})`,
  );
  return new Map(found.map((f) => [f.id, f]));
}
