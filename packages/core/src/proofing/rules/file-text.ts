import type { Rule } from '../rule.ts';

export const fileText: Rule = {
  id: 'file-text',
  severity: 'wrong',
  title: 'File that cannot be read',
  why: 'Its words are not found, and it cannot be quoted from.',
  find: ({ files = [] }) =>
    files.flatMap(({ name, state }) =>
      state === 'image only'
        ? [{ field: 'file', what: `“${name}” has no text: its pages are pictures`, sure: 0.95 }]
        : state === 'damaged'
          ? [{ field: 'file', what: `“${name}” does not open`, sure: 0.97 }]
          : [],
    ),
};
