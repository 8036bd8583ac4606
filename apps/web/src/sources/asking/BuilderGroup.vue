<script setup lang="ts">
/** Rows of conditions, and groups among them: all of these, any of these, none of these. */
import { X } from '@lucide/vue';
import { computed } from 'vue';
import { fieldOf, isGroup, type Group, type Part, type QueryField } from '@pandecta/core/query';
import KitButton from '../../kit/KitButton.vue';
import KitSelect from '../../kit/KitSelect.vue';
import BuilderRow from './BuilderRow.vue';
import { useLately } from './lately.ts';

const props = defineProps<{ depth: number }>();
const emit = defineEmits<{ remove: [] }>();
const group = defineModel<Group>({ required: true });
const lately = useLately();

const JOINS = [
  { value: 'all', name: 'All of these' },
  { value: 'any', name: 'Any of these' },
  { value: 'none', name: 'None of these' },
] as const satisfies { value: Group['join']; name: string }[];
const EDGE = { all: 'border-[#b9cfcb]', any: 'border-[#dcbf85]', none: 'border-[#dfaeac]' };
const join = computed({
  get: () => group.value.join,
  set: (now) => (group.value = { ...group.value, join: now }),
});

const put = (at: number, part: Part): void =>
  void (group.value = { ...group.value, parts: group.value.parts.map((p, i) => (i === at ? part : p)) });
const drop = (at: number): void =>
  void (group.value = { ...group.value, parts: group.value.parts.filter((_, i) => i !== at) });
const add = (part: Part): void => void (group.value = { ...group.value, parts: [...group.value.parts, part] });
const addRow = (field: QueryField | 'words' = 'words'): void => add({ field, text: '', exactly: false, not: false });
const addGroup = (): void =>
  add({
    join: group.value.join === 'any' ? 'all' : 'any',
    parts: [{ field: lately.value[0] ?? 'tag', text: '', exactly: false, not: false }],
  });
</script>

<template>
  <div
    class="border-l-4 pl-3.5"
    :class="EDGE[group.join]"
    role="group"
    :aria-label="JOINS.find((j) => j.value === group.join)!.name"
  >
    <div class="flex items-center gap-2">
      <KitSelect v-model="join" low class="w-36 font-semibold" label="How these are combined" :options="[...JOINS]" />
      <KitButton v-if="depth" look="icon" name="Remove this group" @click="emit('remove')"><X :size="14" /></KitButton>
    </div>
    <ul class="mt-1.5 flex flex-col gap-1.5">
      <li v-for="(part, i) in group.parts" :key="i">
        <BuilderGroup
          v-if="isGroup(part)"
          :model-value="part"
          :depth="props.depth + 1"
          class="my-1"
          @update:model-value="put(i, $event)"
          @remove="drop(i)"
        />
        <BuilderRow v-else :model-value="part" @update:model-value="put(i, $event)" @remove="drop(i)" />
      </li>
    </ul>
    <div class="mt-2 flex flex-wrap items-center gap-1.5">
      <KitButton @click="addRow()">+ Condition</KitButton>
      <KitButton @click="addGroup()">+ Group</KitButton>
      <template v-if="!depth && lately.length">
        <span class="ml-2 text-fine text-muted">used lately:</span>
        <KitButton v-for="f in lately" :key="f" look="quiet" @click="addRow(f)">{{ fieldOf(f).name }}</KitButton>
      </template>
    </div>
  </div>
</template>
