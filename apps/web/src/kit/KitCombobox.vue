<script setup lang="ts" generic="Entry extends { key: string }">
/** A field in which a thing is named by typing: what fits is offered beneath, Enter takes it, Escape is done. */
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/vue';
import { useTemplateRef, type ComponentPublicInstance } from 'vue';
import { useBeside } from './floating.ts';

const props = defineProps<{ label: string; placeholder?: string; entries: Entry[] }>();
const emit = defineEmits<{ choose: [Entry]; done: [] }>();
const text = defineModel<string>('text', { required: true });
const input = useTemplateRef<ComponentPublicInstance & { el: HTMLInputElement }>('input');
const list = useTemplateRef<ComponentPublicInstance>('list');
const style = useBeside(input, list);

/** Enter right after the last letter: what fits stands there already, though nothing of it is active yet. */
function enter(active: unknown, event: KeyboardEvent): void {
  const [first] = props.entries;
  if (active || !first || !text.value.trim()) return;
  event.preventDefault();
  event.stopPropagation();
  choose(first);
}

function choose(entry: Entry | null): void {
  if (!entry) return;
  emit('choose', entry);
  text.value = '';
  if (input.value) input.value.el.value = '';
}
defineExpose({ focus: (): void => input.value?.el.focus() });
</script>

<template>
  <Combobox v-slot="{ activeOption }" :model-value="null" nullable as="div" @update:model-value="choose">
    <div @keydown.enter.capture="enter(activeOption, $event)">
      <ComboboxInput
        ref="input"
        class="w-full rounded-[5px] border border-edge bg-card px-2 py-0.5 text-ink placeholder:text-muted"
        :placeholder="placeholder"
        :aria-label="label"
        autocomplete="off"
        @change="text = $event.target.value"
        @keydown.esc.stop="emit('done')"
      />
    </div>
    <ComboboxOptions
      v-show="entries.length"
      ref="list"
      static
      class="z-40 w-60 overflow-auto rounded-md border border-line bg-card py-1 shadow-lg"
      :style="style"
    >
      <ComboboxOption v-for="e in entries" :key="e.key" v-slot="{ active }" :value="e" as="template">
        <li class="flex justify-between gap-2 px-3 py-1" :class="active && 'bg-verdtint'"><slot :entry="e" /></li>
      </ComboboxOption>
    </ComboboxOptions>
  </Combobox>
</template>
