<script setup lang="ts">
/** The rules that found something, the graver first, with how much. */
import { computed, watch } from 'vue';
import { SEVERITIES } from '@pandecta/core/proofing';
import StyleChooser from '../citing/StyleChooser.vue';
import { useCiting } from '../citing/store.ts';
import QueueEntry from './QueueEntry.vue';
import { useCheck } from './store.ts';

const check = useCheck();
const citing = useCiting();
const HEADS = {
  wrong: 'The citation will be wrong',
  'looks wrong': 'The citation will look wrong',
  look: 'Worth a look',
};
const rules = computed(() => check.findings?.rules ?? []);
watch(
  rules,
  (all) => {
    if (all.length && !all.some((r) => r.id === check.rule)) check.rule = all[0]!.id;
  },
  { immediate: true },
);
</script>

<template>
  <p class="flex items-baseline justify-between gap-2 text-fine text-muted">
    <span
      >As <b class="font-semibold text-ink">{{ citing.style.title }}</b> prints them</span
    ><StyleChooser />
  </p>
  <p v-if="!check.findings" class="mt-3 text-muted" role="status">Looking the records over…</p>
  <template v-for="s in SEVERITIES" :key="s">
    <template v-if="rules.some((r) => r.severity === s)">
      <h2 class="heading mb-0.5 mt-4">{{ HEADS[s] }}</h2>
      <ul>
        <li v-for="r in rules.filter((x) => x.severity === s)" :key="r.id">
          <QueueEntry :name="r.title" :count="r.count" :current="check.rule === r.id" @choose="check.rule = r.id" />
        </li>
      </ul>
    </template>
  </template>
</template>
