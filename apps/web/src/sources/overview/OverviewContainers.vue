<script setup lang="ts">
/** Where the sources were published: a field for each journal, book or reporter, as large as it gave sources. */
import { useElementSize } from '@vueuse/core';
import { hierarchy, treemap, type HierarchyRectangularNode } from 'd3-hierarchy';
import { computed, ref, toRef } from 'vue';
import type { OverviewReply } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import { valuePart, type Part } from './parts.ts';
import { useSteps } from './steps.ts';

const props = defineProps<{ reply: OverviewReply; chosen: string | undefined }>();
const emit = defineEmits<{ choose: [Part] }>();
const box = ref<HTMLElement>();
const { width, height } = useElementSize(box);

interface Leaf {
  row: number;
  count: number;
}
const fields = computed(() => {
  const leaves: Leaf[] = props.reply.rows.map((r, row) => ({ row, count: r.count }));
  if (!leaves.length || !width.value || !height.value) return [];
  const root = hierarchy<{ children?: Leaf[] } | Leaf>({ children: leaves }).sum((d) => ('count' in d ? d.count : 0));
  const laid = treemap<{ children?: Leaf[] } | Leaf>().size([width.value, height.value]).padding(2)(root);
  return (laid.leaves() as HierarchyRectangularNode<Leaf>[]).map(({ x0, y0, x1, y1, data }) => ({
    key: String(data.row),
    x: (x0 + x1) / 2,
    y: (y0 + y1) / 2,
    left: x0,
    top: y0,
    width: x1 - x0,
    height: y1 - y0,
    row: data.row,
    name: props.reply.rows[data.row]!.name,
    count: data.count,
    label: `${props.reply.rows[data.row]!.name}: ${countSources(data.count)}`,
  }));
});
const { at, step } = useSteps(fields, toRef(props, 'chosen'));
const choose = (row: number): void => emit('choose', valuePart(props.reply, row, 'container'));
</script>

<template>
  <div ref="box" class="relative h-full overflow-hidden" role="group" aria-label="Published in" @keydown="step">
    <!-- eslint-disable-next-line vue/no-restricted-html-elements -- a field of the picture, laid out by its size -->
    <div
      v-for="f in fields"
      :key="f.key"
      role="button"
      :tabindex="f.key === at ? 0 : -1"
      :data-key="f.key"
      :aria-label="f.label"
      :aria-pressed="f.key === chosen"
      :title="f.label"
      class="absolute cursor-pointer overflow-hidden px-1.5 py-1 text-left text-fine leading-tight"
      :class="f.key === chosen ? 'bg-verdigris text-onverdigris' : 'bg-verdtint text-ink'"
      :style="{ left: `${f.left}px`, top: `${f.top}px`, width: `${f.width}px`, height: `${f.height}px` }"
      @click="choose(f.row)"
      @keydown.enter.space.prevent.stop="choose(f.row)"
    >
      <template v-if="f.width > 72 && f.height > 34"
        ><span class="line-clamp-2 font-serif">{{ f.name }}</span
        ><span class="font-mono text-label">{{ f.count }}</span></template
      >
    </div>
  </div>
</template>
