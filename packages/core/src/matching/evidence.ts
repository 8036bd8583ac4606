/** Two records compared, as a person is told: how sure it is that they are one work, and why. */
import type { SourceRecord } from '../source/index.ts';
import { CERTAIN, decide, reasonsOf, type Reason } from './decide.ts';
import { see, type Seen } from './seen.ts';

export const VERDICTS = ['certain', 'very likely', 'perhaps', 'different'] as const;
export type Verdict = (typeof VERDICTS)[number];

/** Sure enough that two are treated as one work before a person has looked. */
export const areOneWork = (verdict: Verdict): boolean => verdict === 'certain' || verdict === 'very likely';

export interface Evidence {
  verdict: Verdict;
  /** From 0 to 1. */
  probability: number;
  reasons: Reason[];
}

/** From which probability each is said; what is less is different. */
const FROM: [Verdict, number][] = [
  ['certain', CERTAIN],
  ['very likely', 0.85],
  ['perhaps', 0.05],
];

/** @param sameFile whether both hold the very same file */
export const compare = (a: SourceRecord, b: SourceRecord, sameFile = false): Evidence =>
  compareSeen(see(a), see(b), sameFile);

export function compareSeen(a: Seen, b: Seen, sameFile = false): Evidence {
  const decision = decide(a, b);
  const reasons = reasonsOf(decision);
  if (sameFile)
    return {
      verdict: 'certain',
      probability: 1,
      reasons: [{ field: 'file', says: 'the same file', for: true }, ...reasons],
    };
  const { probability } = decision;
  return { verdict: FROM.find(([, least]) => probability >= least)?.[0] ?? 'different', probability, reasons };
}
