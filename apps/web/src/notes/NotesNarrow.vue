<script setup lang="ts">
/** What notes are narrowed by: their headings by kind, tags, where they come from, whose they are. */
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import type { NoteCount, NotesReply } from '@pandecta/contract';
import { HEADING_KINDS, HEADING_NAMES } from '@pandecta/core/headings';
import { formatNumber } from '@pandecta/core/wording';
import { allOf } from '../data/address.ts';
import KitButton from '../kit/KitButton.vue';
import { useNotesAsk } from './ask.ts';

const props = defineProps<{ reply: NotesReply | null }>();
const MOST = 12;
const ask = useNotesAsk();
const route = useRoute();
const chosen = (name: string): string[] => allOf(route.query[name]);
const groups = computed(() => {
  const { about = [], tags = [], from = [], whose = [] } = props.reply ?? {};
  const headings = HEADING_KINDS.map((kind) => ({
    title: HEADING_NAMES[kind].many,
    name: 'about',
    values: about.filter((h) => h.kind === kind).map(({ id, name, count }): NoteCount => ({ key: id, name, count })),
  }));
  return [
    ...headings,
    { title: 'Tags', name: 'tag', values: tags },
    { title: 'From', name: 'from', values: from },
    { title: 'Whose', name: 'whose', values: whose },
  ].filter((g) => g.values.length);
});
</script>

<template>
  <nav class="overflow-auto bg-panel px-3.5 py-3" aria-label="Narrow">
    <section v-for="g in groups" :key="g.title" class="mb-4">
      <h2 class="heading mb-0.5">{{ g.title }}</h2>
      <ul>
        <li v-for="v in g.values.slice(0, MOST)" :key="v.key" class="flex items-center gap-1">
          <KitButton
            look="bare"
            class="min-h-6 min-w-0 flex-1 truncate text-left hover:underline"
            :class="chosen(g.name).includes(v.key) && 'font-semibold text-verdigris'"
            :aria-pressed="chosen(g.name).includes(v.key)"
            :title="v.name"
            @click="
              g.name === 'whose'
                ? ask.put({ whose: chosen('whose').includes(v.key) ? undefined : v.key })
                : ask.toggle(g.name, v.key)
            "
            >{{ chosen(g.name).includes(v.key) ? '✓ ' : '' }}{{ v.name }}</KitButton
          >
          <KitButton
            v-if="g.name === 'about'"
            look="icon"
            class="text-fine"
            :name="`The page of ${v.name}`"
            @click="ask.openHeading(v.key)"
            >›</KitButton
          >
          <span class="count">{{ formatNumber(v.count) }}</span>
        </li>
      </ul>
      <p v-if="g.values.length > MOST" class="text-fine text-muted">
        and {{ formatNumber(g.values.length - MOST) }} more: ask for about:…
      </p>
    </section>
    <p v-if="!groups.length" class="text-fine text-muted">Headings, tags and dates of your notes are listed here.</p>
  </nav>
</template>
