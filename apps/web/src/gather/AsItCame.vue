<script setup lang="ts">
/**
 * The text a record was read from, each stretch in the colour of its field. A stretch is given to another field by choosing
 * it; so are words one selects.
 */
import { computed, ref, useTemplateRef } from 'vue';
import type { Respan, SpanOf } from '@pandecta/contract';
import { SPAN_FIELDS, type SpanField } from '@pandecta/core/references';
import KitMenu, { type MenuEntry } from '../kit/KitMenu.vue';

const props = defineProps<{ text: string; spans: SpanOf[]; may: boolean }>();
const emit = defineEmits<{ respan: [Respan] }>();

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
const OTHER = 'bg-[#e2e2de]';
interface Piece {
  text: string;
  start: number;
  end: number;
  field?: SpanField;
}
const pieces = computed(() => {
  const out: Piece[] = [];
  let at = 0;
  const add = (start: number, end: number, field?: SpanField): void =>
    void out.push({ text: props.text.slice(start, end), start, end, ...(field && { field }) });
  for (const s of props.spans.toSorted((a, b) => a.start - b.start)) {
    if (s.start < at) continue;
    if (s.start > at) add(at, s.start);
    add(s.start, s.end, s.field);
    at = s.end;
  }
  if (at < props.text.length) add(at, props.text.length);
  return out;
});
const named = computed(() => [...new Set(pieces.value.flatMap((p) => p.field ?? []))]);
const FIELDS = Object.keys(SPAN_FIELDS) as SpanField[];
const entriesFor = ({ start, end, field }: { start: number; end: number; field?: SpanField }): MenuEntry[] => [
  ...FIELDS.filter((f) => f !== field).map((f) => ({
    name: SPAN_FIELDS[f],
    run: () => emit('respan', { start, end, field: f }),
  })),
  ...(field ? [{ name: 'None of them', run: () => emit('respan', { start, end, field: null }) }] : []),
];

const whole = useTemplateRef<HTMLElement>('whole');
/** Words of the text that are selected. */
const selected = ref<{ start: number; end: number } | null>(null);
function look(): void {
  const selection = getSelection();
  selected.value = null;
  if (!props.may || !selection || selection.isCollapsed || !whole.value?.contains(selection.anchorNode)) return;
  const words = selection.toString().replace(/\s+/g, ' ').trim();
  const at = words.length > 0 ? props.text.replace(/\s/g, ' ').indexOf(words) : -1;
  if (at >= 0) selected.value = { start: at, end: at + words.length };
}
</script>

<template>
  <div>
    <p ref="whole" class="border-l-2 border-line pl-2.5 font-serif leading-[1.7]" @mouseup="look">
      <template v-for="p in pieces" :key="p.start"
        ><KitMenu
          v-if="p.field && may"
          :entries="entriesFor(p)"
          look="bare"
          class="inline select-text rounded-sm px-0.5 text-left text-[#1f262d]"
          :class="TINTS[p.field] ?? OTHER"
          :name="`${SPAN_FIELDS[p.field]}: ${p.text}`"
          >{{ p.text }}</KitMenu
        ><span
          v-else-if="p.field"
          class="rounded-sm px-0.5 text-[#1f262d]"
          :class="TINTS[p.field] ?? OTHER"
          :title="SPAN_FIELDS[p.field]"
          ><span class="sr-only">{{ SPAN_FIELDS[p.field] }}: </span>{{ p.text }}</span
        ><template v-else>{{ p.text }}</template></template
      >
    </p>
    <p v-if="named.length" class="mt-1 flex flex-wrap gap-x-2 gap-y-1 text-label text-muted" aria-hidden="true">
      <span v-for="f in named" :key="f" class="flex items-center gap-1"
        ><span class="h-2.5 w-2.5 rounded-sm" :class="TINTS[f] ?? OTHER" />{{ SPAN_FIELDS[f] }}</span
      >
    </p>
    <p v-if="selected" class="mt-1 text-fine" role="status">
      “{{ text.slice(selected.start, selected.end) }}” is
      <KitMenu :entries="entriesFor(selected)" look="word">which field?</KitMenu>
    </p>
  </div>
</template>
