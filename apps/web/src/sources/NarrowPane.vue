<script setup lang="ts">
/** Facets with counts: click to include, again to exclude. */
import { useLocalStorage } from '@vueuse/core';
import { computed, reactive } from 'vue';
import type { Facet, FacetValue } from '@pandecta/contract';
import KitButton from '../kit/KitButton.vue';
import KitField from '../kit/KitField.vue';
import { useAsk } from './ask.ts';
import { useNarrow } from './narrow.ts';

const ask = useAsk();
const narrow = useNarrow();
/** What one narrows by now and then: told by its heading until it is opened. */
const FIRST_CLOSED = [
  'subject',
  'container',
  'publisher',
  'court',
  'jurisdiction',
  'language',
  'sense',
  'by',
  'batch',
  'in',
  'until',
];
const closed = useLocalStorage<string[]>('closed facets', FIRST_CLOSED);
const more = reactive<Record<string, boolean>>({});
const filter = reactive<Record<string, string>>({});
const FEW = 6;

/** Chosen values stay in sight, even where they match nothing now. */
function values(f: Facet): FacetValue[] {
  const known = new Set(f.values.map((v) => v.key));
  const chosen = [...ask.include, ...ask.exclude]
    .filter((x) => x.startsWith(`${f.type}=`))
    .map((x) => x.slice(f.type.length + 1));
  const lost = chosen
    .filter((k) => !known.has(k))
    .map((key) => ({ key, name: narrow.nameOf(f.type, key) ?? key, count: 0 }));
  return [...lost, ...f.values];
}

const facets = computed(() =>
  (narrow.reply?.facets ?? [])
    .map((f) => {
      const all = values(f);
      const wanted = (filter[f.type] ?? '').toLowerCase();
      const fit = wanted ? all.filter((v) => v.name.toLowerCase().includes(wanted)) : all;
      return { ...f, all, shown: more[f.type] || wanted ? fit : fit.slice(0, FEW) };
    })
    .filter((f) => f.all.length),
);

const state = (type: string, key: string): 'in' | 'out' | '' =>
  ask.include.includes(`${type}=${key}`) ? 'in' : ask.exclude.includes(`${type}=${key}`) ? 'out' : '';
const toggle = (type: string): void =>
  void (closed.value = closed.value.includes(type) ? closed.value.filter((c) => c !== type) : [...closed.value, type]);
</script>

<template>
  <aside class="pane px-3.5 py-3" aria-label="Narrow">
    <section v-for="f in facets" :key="f.type" class="mb-3.5">
      <h2>
        <KitButton
          look="bare"
          class="heading flex min-h-6 w-full items-center justify-between"
          :aria-expanded="!closed.includes(f.type)"
          @click="toggle(f.type)"
          >{{ f.name }}<span aria-hidden="true">{{ closed.includes(f.type) ? '▸' : '▾' }}</span></KitButton
        >
      </h2>
      <template v-if="!closed.includes(f.type)">
        <KitField
          v-if="more[f.type] && f.all.length > 12"
          v-model="filter[f.type]"
          class="my-1"
          :label="`Find in ${f.name}`"
          placeholder="Find"
        />
        <ul>
          <li v-for="v in f.shown" :key="v.key">
            <KitButton
              look="bare"
              class="flex min-h-6 w-full items-center justify-between gap-1.5 text-left"
              :aria-pressed="state(f.type, v.key) === 'in'"
              :class="{
                'font-semibold text-verdigris': state(f.type, v.key) === 'in',
                'text-madder line-through': state(f.type, v.key) === 'out',
              }"
              @click="ask.turn(`${f.type}=${v.key}`)"
            >
              <span
                class="truncate"
                :class="
                  f.type === 'subject' &&
                  !state(f.type, v.key) &&
                  'text-muted underline decoration-dotted underline-offset-4'
                "
                ><template v-if="state(f.type, v.key) === 'in'">✓ </template
                ><span v-if="state(f.type, v.key) === 'out'" class="sr-only">not </span>{{ v.name }}</span
              >
              <span class="count">{{ v.count }}</span>
            </KitButton>
          </li>
        </ul>
        <KitButton
          v-if="f.type === 'tag' || f.type === 'subject'"
          look="quiet"
          class="float-right min-h-6"
          :to="f.type === 'tag' ? '/sources/tags' : '/sources/tags?of=subject'"
          >vocabulary</KitButton
        >
        <KitButton v-if="f.all.length > FEW" look="quiet" class="min-h-6" @click="more[f.type] = !more[f.type]">{{
          more[f.type] ? 'fewer' : `+ ${f.all.length - FEW} more`
        }}</KitButton>
      </template>
    </section>
    <p v-if="narrow.reply && !facets.length" class="text-muted">Nothing to narrow.</p>
  </aside>
</template>
