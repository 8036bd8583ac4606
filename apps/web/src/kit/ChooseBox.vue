<script setup lang="ts" generic="Entry extends { key: string }">
/** A box over the page in which one thing is chosen by typing its name: Enter takes it, Escape closes. */
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/vue';
import { watch } from 'vue';
import KitDialog from './KitDialog.vue';

defineProps<{ title: string; label: string; entries: Entry[]; none?: string }>();
const emit = defineEmits<{ choose: [Entry] }>();
const open = defineModel<boolean>('open', { required: true });
const text = defineModel<string>('text', { required: true });
watch(open, () => (text.value = ''), { flush: 'sync' });

function choose(entry: Entry | null): void {
  if (entry) emit('choose', entry);
  if (entry) open.value = false;
}
</script>

<template>
  <KitDialog v-model:open="open" :title="title">
    <Combobox :model-value="null" nullable @update:model-value="choose">
      <ComboboxInput
        class="w-full border-b border-line bg-card px-4 py-2 text-read focus-visible:border-verdigris focus-visible:outline-none"
        :placeholder="label"
        :aria-label="label"
        autocomplete="off"
        @change="text = $event.target.value"
      />
      <ComboboxOptions static class="max-h-80 overflow-auto py-1">
        <ComboboxOption v-for="e in entries" :key="e.key" v-slot="{ active }" :value="e" as="template">
          <li class="flex items-baseline gap-3 px-4 py-1.5" :class="active && 'bg-verdtint'">
            <slot :entry="e" />
          </li>
        </ComboboxOption>
        <li v-if="!entries.length && none" class="px-4 py-3 text-muted">{{ none }}</li>
      </ComboboxOptions>
    </Combobox>
  </KitDialog>
</template>
