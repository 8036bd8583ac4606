<script setup lang="ts">
/** The slip as one line, where there is little room: what is chosen, and the way to all of it. */
import { ChevronUp } from '@lucide/vue';
import { routes } from '@pandecta/contract';
import { dateShort, namesShort, withoutMarkup } from '@pandecta/core/source';
import { formatNumber } from '@pandecta/core/wording';
import { ask } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import KitButton from '../../kit/KitButton.vue';

const props = defineProps<{
  /** The chosen source; null when several are chosen. */
  id: string | null;
  count: number;
}>();
const emit = defineEmits<{ unfold: [] }>();
const { data: source } = useAsked({
  question: () => props.id,
  fetch: (id, signal) => ask(routes.sources.one, { source: id, signal }),
  concerns: (touched, id) => concerns(touched, ['source'], id),
});
</script>

<template>
  <section class="flex h-full items-center gap-3 border-t border-line bg-card px-4" aria-label="Slip">
    <p v-if="!id" class="min-w-0 flex-1 font-serif">{{ formatNumber(count) }} sources</p>
    <p v-else-if="source" class="min-w-0 flex-1 truncate">
      <span class="font-serif">{{ withoutMarkup(source.record.title ?? 'Untitled') }}</span><span class="text-muted">
        ·
        {{
          [namesShort(source.record.author ?? source.record.editor), dateShort(source.record.issued)]
            .filter(Boolean)
            .join(' · ')
        }}</span
      >
    </p>
    <KitButton class="inline-flex shrink-0 items-center gap-1" @click="emit('unfold')"
      >Show the slip<ChevronUp :size="13" aria-hidden="true"
    /></KitButton>
  </section>
</template>
