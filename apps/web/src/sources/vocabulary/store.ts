/** The vocabulary, and what is done to it. */
import { routes, VOCABULARY_FORMATS, type EditTerm, type Vocabulary, type VocabularyFormat } from '@pandecta/contract';
import { useChanges } from '../../act/changes.ts';
import { ask, send } from '../../api/client.ts';
import { useAsked, type Asked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import { save } from '../../kit/save.ts';

/** @param wanted whether anyone looks at it now */
export const useVocabulary = (wanted: () => boolean = () => true): Asked<Vocabulary> =>
  useAsked({
    question: () => 'vocabulary',
    seen: wanted,
    fetch: (_, signal) => ask(routes.tags.vocabulary, { signal }),
    concerns: (touched) => concerns(touched, ['tag', 'source']),
  });

export function useTerms() {
  const { change, attempt } = useChanges();
  const edit = (tag: string, body: EditTerm): Promise<unknown> => change(() => ask(routes.tags.edit, { tag, body }));
  const merge = (into: string, terms: string[]): Promise<unknown> =>
    change(() => ask(routes.tags.merge, { body: { into, terms } }));
  const remove = (tag: string): Promise<unknown> => change(() => ask(routes.tags.remove, { tag }));
  /** @returns what was left out, and why; nothing where all of it was */
  async function bring(text: string, subject: boolean): Promise<string[] | undefined> {
    let messages: string[] = [];
    const done = await change(async () => {
      const brought = await ask(routes.tags.bringVocabulary, { body: { text, subject } });
      ({ messages } = brought);
      return brought;
    });
    return done && messages;
  }
  async function saveAs(format: VocabularyFormat, subject: boolean): Promise<void> {
    const response = await attempt(() => send(routes.tags.saveVocabulary, { query: { format, subject } }));
    const { extension } = VOCABULARY_FORMATS[format];
    if (response) save(`${subject ? 'subject-terms' : 'tags'}.${extension}`, await response.blob());
  }
  const toTags = (terms: string[], keep: boolean): Promise<unknown> =>
    change(() => ask(routes.tags.toTags, { body: { terms, keep } }));
  return { edit, merge, remove, bring, saveAs, toTags };
}
