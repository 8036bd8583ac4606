<script setup lang="ts">
/** Asks outside catalogues, and what was asked before: the log, by day; and the watches. */
import { computed, ref } from 'vue';
import { useRoute } from 'vue-router';
import type { Watch } from '@pandecta/contract';
import { counted, formatNumber } from '@pandecta/core/wording';
import KitButton from '../kit/KitButton.vue';
import KitField from '../kit/KitField.vue';
import KitMenu, { type MenuEntry } from '../kit/KitMenu.vue';
import { byDay } from './days.ts';
import { useOutside } from './outside.ts';
import WatchBox from './WatchBox.vue';

const outside = useOutside();
const route = useRoute();
const fields = ref(false);
const watching = ref(false);

const where = computed(() => {
  const names = outside.chosen.map((c) => c.name);
  return names.length ? names.join(', ') : 'no catalogue';
});
const choose = computed<MenuEntry[]>(() =>
  outside.catalogues.map((c) => ({
    name: c.name,
    checked: !outside.left.includes(c.id),
    run: () =>
      void (outside.left = outside.left.includes(c.id)
        ? outside.left.filter((id) => id !== c.id)
        : [...outside.left, c.id]),
  })),
);

const SHOWN = 12;
const days = computed(() => byDay(outside.log.filter((x) => !x.watch).slice(0, SHOWN)));
const EVERY: Record<Watch['every'], string> = { hour: 'hourly', day: 'daily', week: 'weekly', month: 'monthly' };
const deeds = (w: Watch): MenuEntry[] => [
  { name: 'Run now', run: () => outside.run(w.id) },
  { name: w.paused ? 'Let it go on' : 'Pause', run: () => outside.pause(w.id, !w.paused) },
  { name: 'Stop watching', run: () => outside.unwatch(w.id), warn: true },
];
</script>

<template>
  <section v-if="outside.catalogues.length" aria-label="Search outside">
    <form @submit.prevent="outside.search()">
      <h2 class="heading mb-1 flex justify-between">
        Search outside<KitButton look="quiet" class="font-normal" :aria-expanded="fields" @click="fields = !fields">{{
          fields ? 'Words only' : 'Author, title, year'
        }}</KitButton>
      </h2>
      <KitField
        v-model="outside.words"
        label="Words to search for outside"
        placeholder="barrier closure AND saltmarsh"
      />
      <div v-if="fields" class="mt-1.5 grid gap-1.5">
        <KitField v-model="outside.author" label="Author" placeholder="Author" />
        <KitField v-model="outside.title" label="Title" placeholder="Words of the title" />
        <div class="grid grid-cols-2 gap-1.5">
          <KitField v-model="outside.years[0]" label="From the year" placeholder="From" inputmode="numeric" />
          <KitField v-model="outside.years[1]" label="To the year" placeholder="To" inputmode="numeric" />
        </div>
      </div>
      <p class="mt-1 flex items-baseline gap-1 text-fine text-muted">
        <span class="min-w-0 flex-1">in {{ where }}</span
        ><KitMenu :entries="choose" look="quiet" at="bottom-end">Catalogues</KitMenu>
      </p>
      <KitButton
        type="submit"
        class="mt-1.5 w-full"
        :disabled="!outside.chosen.length || !(outside.words + outside.author + outside.title).trim()"
        >Search</KitButton
      >
    </form>
    <template v-for="d in days" :key="d.day">
      <h3 class="heading mt-2.5">{{ d.day }}</h3>
      <ul>
        <li v-for="s in d.searches" :key="s.id">
          <RouterLink
            :to="`/gather/search/${s.id}`"
            class="flex items-baseline gap-2 rounded px-1 py-0.5 hover:bg-card"
            :class="route.params.search === s.id && 'bg-verdtint'"
            :title="s.why"
            ><span class="min-w-0 flex-1 truncate">{{ s.words }}</span
            ><span class="count">{{ formatNumber(s.found) }}</span></RouterLink
          >
        </li>
      </ul>
    </template>
    <KitButton v-if="outside.log.length" look="quiet" class="mt-2 inline-block py-1" to="/gather/log"
      >The log: {{ counted(outside.log.length, 'search', 'searches') }}, and what came of them</KitButton
    >
    <h3 class="heading mt-3 flex justify-between">
      Watches<KitButton look="quiet" class="font-normal" @click="watching = true">Watch an address…</KitButton>
    </h3>
    <WatchBox v-model:open="watching" />
    <ul>
      <li v-for="w in outside.watches" :key="w.id" class="flex items-baseline gap-2 px-1 py-0.5">
        <span class="min-w-0 flex-1">
          <span class="block truncate" :title="w.words"
            >{{ w.name }} · {{ w.paused ? 'paused' : EVERY[w.every] }}{{ w.mail ? ', by mail' : '' }}</span
          >
          <span v-if="w.says" class="block text-fine text-ochre">{{ w.says }}</span>
        </span>
        <span class="count" :class="w.brought ? 'text-verdigris' : ''">{{
          w.ranAt ? `${w.brought} new` : 'not yet run'
        }}</span>
        <KitMenu :entries="deeds(w)" look="icon" at="bottom-end" :name="`What to do with the watch ${w.name}`"
          >…</KitMenu
        >
      </li>
      <li v-if="!outside.watches.length" class="px-1 text-muted">
        None yet. You can watch a search from its results, and also feeds and pages.
      </li>
    </ul>
  </section>
</template>
