/** What is done about what proofing found: mended, or set aside; and words that keep their form. */
import { routes, type FindingOf } from '@pandecta/contract';
import type { Settled } from '@pandecta/core/changes';
import { useChanges } from '../act/changes.ts';
import { ask } from '../api/client.ts';

export interface FindingDeeds {
  mend(rule: string, findings: readonly FindingOf[]): Promise<unknown>;
  /** What a rule finds in these sources is meant so; everywhere where none is named. */
  setAside(rule: string, sources: string[], present?: boolean): Promise<unknown>;
  keepWord(word: string, present?: boolean): Promise<unknown>;
}

export function useFindingDeeds(): FindingDeeds {
  const { change } = useChanges();
  const settle = (what: Settled, name: string, sources: string[], present: boolean): Promise<unknown> =>
    change(() => ask(routes.check.settle, { body: { what, name, sources, present } }));
  return {
    mend: (rule, findings) => {
      const mends = findings.map((f) => ({ source: f.source, before: f.before!, after: f.mend! }));
      return change(() => ask(routes.check.mend, { body: { rule, mends } }));
    },
    setAside: (rule, sources, present = true) => settle('aside', rule, sources, present),
    keepWord: (word, present = true) => settle('word', word, [], present),
  };
}
