/** The vocabulary, and what is done to it. */
import { routes, type EditTerm, type Vocabulary } from '@pandecta/contract';
import { useChanges } from '../../act/changes.ts';
import { ask } from '../../api/client.ts';
import { useAsked, type Asked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';

export const useVocabulary = (): Asked<Vocabulary> =>
  useAsked({
    question: () => 'vocabulary',
    fetch: (_, signal) => ask(routes.tags.vocabulary, { signal }),
    concerns: (touched) => concerns(touched, ['tag', 'source']),
  });

export function useTerms() {
  const { change } = useChanges();
  const edit = (tag: string, body: EditTerm): Promise<unknown> => change(() => ask(routes.tags.edit, { tag, body }));
  const merge = (into: string, terms: string[]): Promise<unknown> =>
    change(() => ask(routes.tags.merge, { body: { into, terms } }));
  const remove = (tag: string): Promise<unknown> => change(() => ask(routes.tags.remove, { tag }));
  return { edit, merge, remove };
}
