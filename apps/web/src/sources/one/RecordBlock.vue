<script setup lang="ts">
/** All a record holds, in the order of a catalogue card, with how each field is known. */
import { computed } from 'vue';
import type { SourceDetail } from '@pandecta/contract';
import { isTextVariable, variableLabel } from '@pandecta/core/source';
import { inOrder, originInWords, valueInWords } from '../values.ts';

const props = defineProps<{ source: SourceDetail }>();
const LONG = new Set(['abstract', 'note']);
const fields = computed(() => {
  const { record, provenance } = props.source;
  return inOrder(
    Object.keys(record).filter((f) => f !== 'custom'),
    record,
  ).map((field) => {
    const value = (record as unknown as Record<string, unknown>)[field];
    const how = provenance[field];
    return {
      field,
      name: variableLabel(field),
      text: valueInWords(field, value),
      long: LONG.has(field) && isTextVariable(field),
      mono: /^(?:DOI|ISBN|ISSN|PMID|PMCID|URL|citation-key)$/.test(field),
      from: how ? originInWords(how) : '',
    };
  });
});
/** What most fields are known by is said once, beneath. */
const most = computed(() => {
  const counts = new Map<string, number>();
  for (const { from } of fields.value) if (from) counts.set(from, (counts.get(from) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? '';
});
</script>

<template>
  <dl class="grid grid-cols-[minmax(7rem,9rem)_minmax(0,1fr)_auto] gap-x-3 gap-y-1">
    <template v-for="f in fields" :key="f.field">
      <dt class="text-muted">{{ f.name }}</dt>
      <dd class="whitespace-pre-line break-words" :class="[f.mono && 'font-mono text-fine', f.long && 'font-serif']">
        {{ f.text }}
      </dd>
      <dd class="text-right text-fine text-muted">{{ f.from === most ? '' : f.from }}</dd>
    </template>
  </dl>
  <p v-if="most" class="mt-1.5 text-fine text-muted">Where nothing else is said: {{ most }}.</p>
</template>
