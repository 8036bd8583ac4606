<script setup lang="ts">
/** The rules that found something, the graver first, with how much; below them what was set aside. */
import { computed, watch } from 'vue';
import { SEVERITIES } from '@pandecta/core/proofing';
import StyleChooser from '../citing/StyleChooser.vue';
import { useCiting } from '../citing/store.ts';
import KitButton from '../kit/KitButton.vue';
import KitSelect from '../kit/KitSelect.vue';
import { usePlaces } from '../places/store.ts';
import QueueEntry from './QueueEntry.vue';
import { useCheck } from './store.ts';

const check = useCheck();
const citing = useCiting();
const places = usePlaces();
const HEADS = {
  wrong: 'The citation will be wrong',
  'looks wrong': 'The citation will look wrong',
  look: 'Worth a look',
};
const rules = computed(() => check.findings?.rules ?? []);
const open = computed(() => rules.value.filter((r) => r.count && !r.whole));
const aside = computed(() => rules.value.filter((r) => r.aside || r.whole));
const scopes = computed(() => [
  { value: '', name: 'All sources' },
  ...places.flat.map((p) => ({ value: p.id, name: p.path })),
]);
watch(
  [open, aside],
  () => {
    const here = check.aside ? aside.value : open.value;
    if (here.some((r) => r.id === check.rule)) return;
    const first = open.value[0];
    if (first) check.look({ rule: first.id, aside: false });
  },
  { immediate: true },
);
const report = computed(() => `/check/report${check.collection && `?collection=${check.collection}`}`);
</script>

<template>
  <KitSelect v-model="check.collection" label="Which sources are proofed" low :options="scopes" />
  <p class="mt-1.5 flex items-baseline justify-between gap-2 text-fine text-muted">
    <span
      >As <b class="font-semibold text-ink">{{ citing.style.title }}</b> prints them</span
    ><StyleChooser />
  </p>
  <p v-if="!check.findings" class="mt-3 text-muted" role="status">Checking the records…</p>
  <template v-for="s in SEVERITIES" :key="s">
    <template v-if="open.some((r) => r.severity === s)">
      <h2 class="heading mb-0.5 mt-4">{{ HEADS[s] }}</h2>
      <ul>
        <li v-for="r in open.filter((x) => x.severity === s)" :key="r.id">
          <QueueEntry
            :name="r.title"
            :count="r.count"
            :current="check.rule === r.id && !check.aside"
            @choose="check.look({ rule: r.id, aside: false })"
          />
        </li>
      </ul>
    </template>
  </template>
  <template v-if="aside.length">
    <h2 class="heading mb-0.5 mt-4">Set aside</h2>
    <ul>
      <li v-for="r in aside" :key="r.id" class="text-muted">
        <QueueEntry
          :name="r.title"
          :count="r.aside"
          :current="check.rule === r.id && check.aside"
          @choose="check.look({ rule: r.id, aside: true })"
        />
      </li>
    </ul>
  </template>
  <p v-if="check.findings" class="mt-4"><KitButton :to="report" class="w-full">Report to print</KitButton></p>
</template>
