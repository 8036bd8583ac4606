<script setup lang="ts">
/** More like this: sources that share rare words, people or references with one, and what they share. */
import { routes, type LikeSource } from '@pandecta/contract';
import { counted } from '@pandecta/core/wording';
import { ask } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import KitNotice from '../../kit/KitNotice.vue';
import StampMark from '../../kit/StampMark.vue';

const props = defineProps<{ id: string }>();
const { data: value, error } = useAsked({
  question: () => props.id,
  fetch: async (source, signal) => (await ask(routes.relations.like, { source, signal })).like,
  concerns: (touched, one) => concerns(touched, ['source'], one),
});
const MOST_WORDS = 5;
const shared = ({ words, people, references }: LikeSource): string =>
  [...people, ...words.slice(0, MOST_WORDS), ...(references ? [counted(references, 'reference')] : [])].join(', ');
</script>

<template>
  <div>
    <KitNotice v-if="error" tone="bad">{{ error }}</KitNotice>
    <p v-else-if="!value" class="text-muted" role="status">Looking for others…</p>
    <p v-else-if="!value.length" class="text-muted">No other source shares rare words, people or references with it.</p>
    <ul v-else>
      <li v-for="s in value" :key="s.id" class="flex items-baseline gap-2 border-b border-line py-1">
        <StampMark :kind="s.kind" class="self-center" />
        <span class="min-w-0 flex-1"
          ><RouterLink class="font-serif hover:underline" :to="`/sources/${s.id}`">{{ s.title }}</RouterLink
          ><span class="ml-2 text-fine text-muted">{{ [s.who, s.year].filter(Boolean).join(', ') }}</span
          ><span class="block text-fine">shares {{ shared(s) }}</span></span
        >
      </li>
    </ul>
  </div>
</template>
