<script setup lang="ts" generic="Entry extends { key: string }">
/**
 * A box over the page in which one thing is chosen by typing its name: Enter takes it, Escape closes. Where there may be
 * several, Shift+Enter or its box ticks one, and Enter takes what is ticked and the one it is at.
 */
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/vue';
import { watch } from 'vue';
import CheckMark from './CheckMark.vue';
import KitDialog from './KitDialog.vue';

const { several = false, ticked = [] } = defineProps<{
  title: string;
  label: string;
  entries: Entry[];
  none?: string;
  several?: boolean;
  /** The keys of those that are ticked. */
  ticked?: string[];
}>();
const emit = defineEmits<{ choose: [Entry]; tick: [Entry] }>();
const open = defineModel<boolean>('open', { required: true });
const text = defineModel<string>('text', { required: true });
watch(open, () => (text.value = ''), { flush: 'sync' });

function choose(entry: Entry | null): void {
  if (entry) emit('choose', entry);
  if (entry) open.value = false;
}

function tick(entry: Entry | null, event: Event): void {
  if (!several || !entry) return;
  event.preventDefault();
  event.stopPropagation();
  emit('tick', entry);
}
</script>

<template>
  <KitDialog v-model:open="open" :title="title">
    <Combobox v-slot="{ activeOption }" :model-value="null" nullable @update:model-value="choose">
      <div @keydown.enter.shift.capture="tick(activeOption as Entry | null, $event)">
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
              <CheckMark
                v-if="several"
                class="translate-y-0.5"
                :checked="ticked.includes(e.key)"
                @check="emit('tick', e)"
              /><span v-if="ticked.includes(e.key)" class="sr-only">ticked</span>
              <slot :entry="e" />
            </li>
          </ComboboxOption>
          <li v-if="!entries.length && none" class="px-4 py-3 text-muted">{{ none }}</li>
        </ComboboxOptions>
      </div>
    </Combobox>
    <slot name="bottom" />
  </KitDialog>
</template>
