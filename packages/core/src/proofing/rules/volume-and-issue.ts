import type { Rule } from '../rule.ts';

const BOTH =
  /^\s*(?:vol\.?\s*)?(\w+)\s*(?:\(\s*(?:no\.?\s*)?([\w/–-]+)\s*\)|,?\s*(?:no|nr|issue)\.?\s*([\w/–-]+))\s*$/i;
/** "41:3", "41/3": not "41/42", two volumes in one. */
const TIED = /^\s*(\d+)\s*[:/]\s*(\d{1,2})\s*$/;

export const volumeAndIssue: Rule = {
  id: 'volume-and-issue',
  severity: 'looks wrong',
  title: 'Volume and issue in one',
  why: 'Each is printed in its own place.',
  find({ record: { volume, issue } }) {
    const m = BOTH.exec(volume ?? '') ?? (issue ? null : TIED.exec(volume ?? ''));
    const inner = m?.[2] ?? m?.[3];
    if (m && inner && Number(inner) === Number(m[1]) + 1) return [];
    if (!m || !inner || (issue && issue !== inner)) return [];
    return [
      { field: 'volume', what: `“${volume}” is volume and issue`, sure: 0.95, mend: { volume: m[1]!, issue: inner } },
    ];
  },
};
