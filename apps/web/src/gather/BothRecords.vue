<script setup lang="ts">
/** What comes in beside what is here: the fields either has, and where they differ. */
import { computed } from 'vue';
import type { Match } from '@pandecta/contract';
import { variableLabel, type SourceRecord } from '@pandecta/core/source';
import { fold } from '@pandecta/core/words';
import TimeText from '../kit/TimeText.vue';
import { valueInWords } from '../sources/index.ts';

const props = defineProps<{ incoming: SourceRecord; match: Match }>();
const FIELDS = [
  'title',
  'author',
  'editor',
  'issued',
  'container-title',
  'volume',
  'issue',
  'page',
  'publisher',
  'edition',
  'authority',
  'DOI',
  'ISBN',
  'PMID',
] as const;
const LONG = 160;

const asText = (field: string, value: unknown): string => {
  const t = valueInWords(field, value);
  return t.length > LONG && typeof value === 'string' ? `${t.slice(0, LONG)}…` : t;
};
const lines = computed(() =>
  FIELDS.flatMap((field) => {
    const [coming, here] = [asText(field, props.incoming[field]), asText(field, props.match.record[field])];
    if (!coming && !here) return [];
    return [{ field, coming, here, differs: Boolean(coming && here) && fold(coming) !== fold(here) }];
  }),
);
const long = (field: string): boolean => field === 'DOI' || field === 'ISBN' || field === 'PMID';
</script>

<template>
  <!-- eslint-disable-next-line vue/no-restricted-html-elements -- two records beside each other: a table of three columns -->
  <table class="w-full table-fixed text-fine" aria-label="Coming in, and here">
    <thead>
      <tr class="text-left align-bottom">
        <th class="w-[4.4rem] font-normal"><span class="sr-only">Field</span></th>
        <th class="border-b border-line pb-1 font-semibold">Coming in</th>
        <th class="border-b border-line pb-1 pl-2 font-semibold">
          Here since <TimeText :at="match.addedAt" to="day" />
        </th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="l in lines" :key="l.field" class="align-top">
        <th class="py-0.5 pr-1 text-left font-normal text-muted">{{ variableLabel(l.field) }}</th>
        <td class="break-words py-0.5 pr-1" :class="long(l.field) && 'break-all font-mono text-label'">
          <span v-if="l.coming" :class="l.differs && 'bg-lit'">{{ l.coming }}</span><span v-else class="text-muted"
            >—</span
          ><span v-if="l.differs" class="sr-only"> (differs)</span>
        </td>
        <td class="break-words py-0.5 pl-2" :class="long(l.field) && 'break-all font-mono text-label'">
          <span v-if="l.here">{{ l.here }}</span><span v-else class="text-muted">—</span>
        </td>
      </tr>
    </tbody>
  </table>
</template>
