import type { Rule } from '../rule.ts';

/** Forms of a work in the order in which they come. */
const EARLY = new Set(['article', 'manuscript', 'speech']);
const LATE = new Set(['article-journal', 'chapter', 'book', 'paper-conference', 'thesis', 'report']);

export const newerVersion: Rule = {
  id: 'newer-version',
  severity: 'look',
  title: 'Superseded by a later version',
  why: 'Readers expect the published work, unless the earlier form itself is meant.',
  find({ record: { type }, versions = [] }) {
    const later = EARLY.has(type) ? versions.find((v) => LATE.has(v.type)) : undefined;
    return later
      ? [{ field: 'type', what: `“${later.title ?? ''}” was published and is here as well`, sure: 0.8 }]
      : [];
  },
};
