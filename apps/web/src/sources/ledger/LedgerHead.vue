<script setup lang="ts">
/** The heads of the columns: pressed they sort, dragged they move, their edges make them wider. */
import { ref } from 'vue';
import type { SortKey } from '@pandecta/contract';
import { vDrag, vDrop, type Edge } from '../../kit/drag.ts';
import KitButton from '../../kit/KitButton.vue';
import SplitHandle from '../../kit/SplitHandle.vue';
import { NARROWEST, useLook, WIDEST, type Column } from './columns.ts';

interface DragColumn {
  what: 'column';
  id: Column['id'];
}

defineProps<{ signOf: (key: string) => string }>();
const emit = defineEmits<{ sort: [key: SortKey, add: boolean] }>();
const look = useLook();
/** Where a column that is dragged would come to stand. */
const target = ref<{ id: Column['id']; edge: Edge } | null>(null);
const said = ref('');

const place = (id: Column['id']): number => look.columns.findIndex((c) => c.id === id);

function move(id: Column['id'], by: number): void {
  look.move(id, by);
  said.value = `${look.columns[place(id)]!.name} is column ${place(id) + 1} of ${look.columns.length}`;
}
function drop(id: Column['id'], on: Column['id'], edge: Edge): void {
  const to = place(on) + (edge === 'after' ? 1 : 0);
  const from = place(id);
  move(id, (to > from ? to - 1 : to) - from);
}
const taking = (on: Column['id']) => ({
  accepts: (d: DragColumn) => d.what === 'column' && d.id !== on,
  over: (d: DragColumn | null, edge: Edge) => void (target.value = d && { id: on, edge }),
  dropped: (d: DragColumn, edge: Edge) => drop(d.id, on, edge),
});
</script>

<template>
  <div
    class="heading grid gap-x-[11px] border-b border-line px-4 py-0.5"
    role="group"
    aria-label="Columns"
    :style="{ gridTemplateColumns: look.grid }"
  >
    <span class="sr-only" aria-live="polite">{{ said }}</span>
    <span class="col-start-2" />
    <KitButton look="bare" class="text-left hover:text-ink" @click="emit('sort', 'title', $event.shiftKey)"
      >Title {{ signOf('title') }}</KitButton
    >
    <div
      v-for="c in look.columns"
      :key="c.id"
      v-drag="() => ({ what: 'column', id: c.id })"
      v-drop.across="taking(c.id)"
      class="flex min-w-0 items-stretch"
      :class="
        target?.id === c.id && (target.edge === 'after' ? 'border-r-2 border-verdigris' : 'border-l-2 border-verdigris')
      "
    >
      <KitButton
        look="bare"
        class="min-w-0 flex-1 truncate text-left hover:text-ink"
        :title="`${c.sort ? 'Sorts by it. ' : ''}Drag, or Alt with an arrow, moves it`"
        @click="c.sort && emit('sort', c.sort, $event.shiftKey)"
        @keydown.alt.left.prevent.stop="move(c.id, -1)"
        @keydown.alt.right.prevent.stop="move(c.id, 1)"
        >{{ c.name }} {{ c.sort ? signOf(c.sort) : '' }}</KitButton
      >
      <SplitHandle
        side="left"
        :label="`Width of ${c.name}`"
        :min="NARROWEST"
        :max="WIDEST"
        :model-value="c.width"
        @update:model-value="look.resize(c.id, $event)"
      />
    </div>
  </div>
</template>
