/** Joining a record that comes in to one that is here: what is empty is filled; nothing that stands is overwritten. */
import type { FieldValue, SourceRecord } from '../source/index.ts';
import { bestOf } from './fold.ts';

/** What of the incoming record the one here has no value for, by field. The kind is never another's to say. */
export function filledBy(here: SourceRecord, incoming: SourceRecord): Record<string, FieldValue> {
  const known = here as Record<string, unknown>;
  return Object.fromEntries(
    Object.entries(incoming).filter(
      ([field, value]) => field !== 'type' && field !== 'custom' && value !== undefined && known[field] === undefined,
    ),
  ) as Record<string, FieldValue>;
}

/**
 * What one that is of the same work gives a record of which less is known: what it lacks, and title, people and container
 * where those of the other are better written. Nothing a person would miss is overwritten.
 */
export function givenByLike(own: SourceRecord, like: SourceRecord): Record<string, FieldValue> {
  const { title, author } = bestOf([like, own]);
  const container = like['container-title'];
  const abbreviated = /\.(?:\s|$)/.test(own['container-title'] ?? '');
  const given: Record<string, FieldValue | undefined> = {
    ...filledBy(own, like),
    ...(own.type === 'document' && { type: like.type }),
    title,
    author,
    ...(abbreviated && container && { 'container-title': container }),
  };
  return Object.fromEntries(Object.entries(given).filter(([, v]) => v !== undefined)) as Record<string, FieldValue>;
}
