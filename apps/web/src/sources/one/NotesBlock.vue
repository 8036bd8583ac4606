<script setup lang="ts">
/** The notes on a source, and a new one. */
import { routes } from '@pandecta/contract';
import { placeWritten } from '@pandecta/core/page-numbers';
import { useNoting } from '../../act/noting.ts';
import { ask } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import KitButton from '../../kit/KitButton.vue';
import { useSession } from '../../session/store.ts';

const MOST = 50;
const props = defineProps<{ id: string }>();
const session = useSession();
const noting = useNoting();
const { data } = useAsked({
  question: () => props.id,
  fetch: (source, signal) =>
    ask(routes.notes.list, { body: { source, count: MOST, sort: ['event', 'title'] }, signal }),
  concerns: (touched) => concerns(touched, ['note']),
});
const begin = (): void => void noting.begin({ from: [{ source: props.id, file: null, page: null, cited: '', mark: null }] }); // prettier-ignore
</script>

<template>
  <section v-if="data?.total || session.may('own')" aria-label="Notes">
    <h2 class="heading mb-0.5 flex justify-between">
      Notes<KitButton v-if="session.may('own')" look="quiet" class="font-normal print:hidden" @click="begin"
        >+ note</KitButton
      >
    </h2>
    <ul>
      <li v-for="n in data?.notes ?? []" :key="n.id" class="border-b border-line py-1 last:border-0">
        <RouterLink class="font-serif hover:underline" :to="`/notes?note=${n.id}`">{{
          n.title || 'Untitled note'
        }}</RouterLink>
        <span class="ml-2 text-label text-muted">{{
          [n.event, ...n.sources.filter((s) => s.id === id && s.cited).map((s) => placeWritten(s.cited))]
            .filter(Boolean)
            .join(' · ')
        }}</span>
      </li>
    </ul>
    <RouterLink
      v-if="(data?.total ?? 0) > MOST"
      class="text-fine text-verdigris hover:underline"
      :to="`/notes?source=${id}`"
      >All {{ data?.total }} notes on it</RouterLink
    >
  </section>
</template>
