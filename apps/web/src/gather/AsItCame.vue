<script setup lang="ts">
/** The text a record was read from, each stretch in the colour of its field and named when one points at it. */
import { computed } from 'vue';
import type { SpanOf } from '@pandecta/contract';
import { SPAN_FIELDS, type SpanField } from '@pandecta/core/references';

const props = defineProps<{ text: string; spans: SpanOf[] }>();

/** A tint for each field that is often there; what is rarer shares one. The name is told beside it. */
const TINTS: Partial<Record<SpanField, string>> = {
  author: 'bg-lilac',
  title: 'bg-mist',
  'container-title': 'bg-sand',
  issued: 'bg-rose',
  volume: 'bg-sky',
  issue: 'bg-sky',
  page: 'bg-straw',
};
const pieces = computed(() => {
  const out: { text: string; field?: SpanField }[] = [];
  let at = 0;
  for (const s of props.spans.toSorted((a, b) => a.start - b.start)) {
    if (s.start < at) continue;
    if (s.start > at) out.push({ text: props.text.slice(at, s.start) });
    out.push({ text: props.text.slice(s.start, s.end), field: s.field });
    at = s.end;
  }
  if (at < props.text.length) out.push({ text: props.text.slice(at) });
  return out;
});
const named = computed(() => [...new Set(pieces.value.flatMap((p) => p.field ?? []))]);
</script>

<template>
  <div>
    <p class="border-l-2 border-line pl-2.5 font-serif leading-[1.7]">
      <template v-for="(p, i) in pieces" :key="i"
        ><span
          v-if="p.field"
          class="rounded-sm px-0.5 text-[#1f262d]"
          :class="TINTS[p.field] ?? 'bg-[#e2e2de]'"
          :title="SPAN_FIELDS[p.field]"
          ><span class="sr-only">{{ SPAN_FIELDS[p.field] }}: </span>{{ p.text }}</span
        ><template v-else>{{ p.text }}</template></template
      >
    </p>
    <p v-if="named.length" class="mt-1 flex flex-wrap gap-x-2 gap-y-1 text-label text-muted" aria-hidden="true">
      <span v-for="f in named" :key="f" class="flex items-center gap-1"
        ><span class="h-2.5 w-2.5 rounded-sm" :class="TINTS[f] ?? 'bg-[#e2e2de]'" />{{ SPAN_FIELDS[f] }}</span
      >
    </p>
  </div>
</template>
