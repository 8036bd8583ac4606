<script setup lang="ts">
/** Facets with counts: click to include, again to exclude. */
import { computed, reactive, ref } from 'vue';
import type { Facet, FacetValue } from '@pandecta/contract';
import KitButton from '../kit/KitButton.vue';
import { useAsk } from './ask.ts';
import FacetSheet from './FacetSheet.vue';
import { useNarrow } from './narrow.ts';

const ask = useAsk();
const narrow = useNarrow();
const more = reactive<Record<string, boolean>>({});
/** The kind of facet all values of which are shown in a sheet. */
const all = ref<{ type: string; name: string } | null>(null);
const FEW = 6;
/** More of them than these are looked through in the sheet. */
const MANY = 20;

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

const facets = computed(() => {
  const told = new Map((narrow.reply?.facets ?? []).map((f) => [f.type, f]));
  // Where nothing is there to narrow, no heading says so of itself.
  const offered = narrow.reply?.total === 0 ? [] : (narrow.reply?.offered ?? []);
  return offered.map(({ type, name }) => {
    const isOpen = narrow.open.includes(type);
    const of = told.get(type);
    const here = isOpen && of ? values(of) : [];
    return {
      type,
      name,
      isOpen,
      waits: isOpen && !of,
      all: here,
      shown: more[type] ? here.slice(0, MANY) : here.slice(0, FEW),
    };
  });
});

const state = (type: string, key: string): 'in' | 'out' | '' =>
  ask.include.includes(`${type}=${key}`) ? 'in' : ask.exclude.includes(`${type}=${key}`) ? 'out' : '';
</script>

<template>
  <aside class="pane px-3.5 py-3" aria-label="Narrow">
    <p v-if="narrow.reply?.total === 0" class="text-fine text-muted">Nothing here to narrow.</p>
    <section v-for="f in facets" :key="f.type" :class="f.isOpen ? 'mb-3.5' : 'mb-1'">
      <h2>
        <KitButton
          look="bare"
          class="heading flex min-h-6 w-full items-center justify-between"
          :aria-expanded="f.isOpen"
          @click="narrow.toggle(f.type)"
          >{{ f.name }}<span aria-hidden="true">{{ f.isOpen ? '▾' : '▸' }}</span></KitButton
        >
      </h2>
      <template v-if="f.isOpen">
        <p v-if="!f.all.length && !f.waits" class="text-fine text-muted">none here</p>
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
        <KitButton
          v-if="f.all.length > FEW && !more[f.type]"
          look="quiet"
          class="min-h-6"
          @click="f.all.length > MANY ? (all = f) : (more[f.type] = true)"
          >{{ f.all.length > MANY ? 'all of them…' : `+ ${f.all.length - FEW} more` }}</KitButton
        >
        <KitButton v-else-if="more[f.type]" look="quiet" class="min-h-6" @click="more[f.type] = false">fewer</KitButton>
      </template>
    </section>
    <FacetSheet v-model:facet="all" />
  </aside>
</template>
