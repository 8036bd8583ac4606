/** What goes together in the answer, asked for while the picture is shown. */
import type { Ref } from 'vue';
import { useRoute } from 'vue-router';
import { routes, type OverviewReply, type OverviewSide } from '@pandecta/contract';
import { ask as fetchReply } from '../../api/client.ts';
import { useAsked, type Asked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import { useAsk } from '../ask.ts';
import type { Sides } from './parts.ts';

export const PICTURES = {
  together: 'What goes together',
  people: 'Who appears together',
  years: 'Kinds by year',
  containers: 'Published in',
} as const;
export type Picture = keyof typeof PICTURES;

/** What a side is called, of those one chooses from. */
export const SIDE_NAMES: Partial<Record<OverviewSide, string>> = {
  tag: 'tags',
  subject: 'subject terms',
  label: 'labels',
  in: 'collections',
  kind: 'kinds',
  person: 'people',
  sense: 'senses of marks',
  court: 'courts',
};

export function useOverview(sides: Ref<Sides & { most: number }>): Asked<OverviewReply> {
  const ask = useAsk();
  const route = useRoute();
  return useAsked({
    question: () => {
      const { sort: _sort, ...question } = ask.params;
      return { ...question, ...sides.value };
    },
    fetch: (query, signal) => fetchReply(routes.search.overview, { query, signal }),
    concerns: (touched) => concerns(touched, ['source', 'tag', 'collection', 'label', 'words']),
    seen: () => route.name === 'sources',
  });
}
