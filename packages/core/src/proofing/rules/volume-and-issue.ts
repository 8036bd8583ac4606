import type { Rule } from '../rule.ts';

export const volumeAndIssue: Rule = {
  id: 'volume-and-issue',
  severity: 'looks wrong',
  title: 'Volume and issue in one',
  why: 'Each is printed in its own place.',
  find({ record: { volume, issue } }) {
    const m =
      /^\s*(?:vol\.?\s*)?(\w+)\s*(?:\(\s*(?:no\.?\s*)?([\w/–-]+)\s*\)|,?\s*(?:no|nr|issue)\.?\s*([\w/–-]+))\s*$/i.exec(
        volume ?? '',
      );
    const inner = m?.[2] ?? m?.[3];
    if (!m || !inner || (issue && issue !== inner)) return [];
    return [
      { field: 'volume', what: `“${volume}” is volume and issue`, sure: 0.95, mend: { volume: m[1]!, issue: inner } },
    ];
  },
};
