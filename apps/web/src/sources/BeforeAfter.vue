<script setup lang="ts">
/** What a mend does: each field as it is, and as it would be. */
import { computed } from 'vue';
import type { FindingOf } from '@pandecta/contract';
import { variableLabel } from '@pandecta/core/source';
import { valueInWords } from './values.ts';

const props = defineProps<{ finding: Pick<FindingOf, 'mend' | 'before'> }>();
const changes = computed(() =>
  Object.entries(props.finding.mend ?? {}).map(([field, after]) => ({
    field,
    before: valueInWords(field, (props.finding.before as Record<string, unknown> | null)?.[field]),
    after: valueInWords(field, after),
  })),
);
</script>

<template>
  <template v-for="c in changes" :key="c.field">
    <p v-if="c.before" class="break-words font-serif text-madder line-through">
      <span class="sr-only">Now: </span>{{ c.before }}
    </p>
    <p class="break-words font-serif">
      <span class="sr-only">As it would be: </span><span v-if="c.after" class="bg-verdtint">{{ c.after }}</span
      ><span v-else class="text-muted">nothing</span
      ><span v-if="changes.length > 1" class="ml-2 font-sans text-fine text-muted">{{ variableLabel(c.field) }}</span>
    </p>
  </template>
</template>
