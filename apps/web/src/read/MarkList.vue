<script setup lang="ts">
/** The marks of a document by sense; first those that lost their place. */
import { ChevronRight } from '@lucide/vue';
import { computed } from 'vue';
import type { Mark } from '@pandecta/contract';
import { offeredSenses, SHAPE_NAMES, type Sense } from '@pandecta/core/marks';
import { placeWritten } from '@pandecta/core/page-numbers';
import KitButton from '../kit/KitButton.vue';
import { FILL } from './colours.ts';

const props = defineProps<{ marks: Mark[]; senses: Sense[]; active: string | null }>();
const emit = defineEmits<{ mark: [id: string] }>();

const groups = computed(() => {
  const lost = props.marks.filter((m) => m.unplaced);
  const order = [...offeredSenses(props.senses), ...props.senses.filter((s) => s.retired || s.into)];
  return [
    { key: 'lost', name: 'Without a place', colour: undefined, marks: lost },
    ...order.map((s) => ({
      key: s.id,
      name: s.name,
      colour: s.colour,
      marks: props.marks.filter((m) => m.sense === s.id && !m.unplaced),
    })),
  ].filter((g) => g.marks.length);
});
</script>

<template>
  <details v-for="g in groups" :key="g.key" class="group" :open="g.key === 'lost' || groups.length === 1">
    <summary class="flex min-h-7 cursor-pointer items-center gap-1.5">
      <ChevronRight
        :size="13"
        class="transition-transform group-open:rotate-90 motion-reduce:transition-none"
        aria-hidden="true"
      />
      <span v-if="g.colour" class="inline-block h-3 w-3 rounded-[2px]" :class="FILL[g.colour]" aria-hidden="true" />
      <span class="min-w-0 flex-1 truncate" :class="g.key === 'lost' && 'font-semibold text-ochre'">{{
        g.name
      }}</span>{{ ' ' }}<span class="text-muted">{{ g.marks.length }}</span>
    </summary>
    <p v-if="g.key === 'lost'" class="text-fine text-muted">
      Their words are not in this document. Choose one, select where it belongs, and place it there.
    </p>
    <ul>
      <li v-for="m in g.marks" :key="m.id">
        <KitButton
          look="bare"
          class="block w-full border-b border-line py-1 text-left text-fine"
          :class="m.id === active && 'font-semibold'"
          :aria-pressed="m.id === active"
          @click="emit('mark', m.id)"
          ><span class="text-verdigris">{{ placeWritten(m.cited) }}</span
          >{{ ' '
          }}<span class="line-clamp-2 inline">{{
            m.quote.exact.slice(0, 90) || m.gloss.slice(0, 90) || SHAPE_NAMES[m.shape]
          }}</span></KitButton
        >
      </li>
    </ul>
  </details>
</template>
