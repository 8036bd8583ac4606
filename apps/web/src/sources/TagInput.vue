<script setup lang="ts">
/** Adds a tag by typing its name: those there are that begin so come first, then a new one of that name. */
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/vue';
import { watchDebounced } from '@vueuse/core';
import { computed, onMounted, ref } from 'vue';
import { routes, type TagSuggestion } from '@pandecta/contract';
import { fold } from '@pandecta/core/words';
import { ask } from '../api/client.ts';
import { useFloating } from '../kit/floating.ts';

const emit = defineEmits<{ add: [name: string]; done: [] }>();
const text = ref('');
const { style, place } = useFloating(240);
const found = ref<TagSuggestion[]>([]);
const input = ref<{ el: HTMLInputElement }>();
const begun = computed(() => fold(text.value.trim()));
// What was found may be for fewer letters than there are now: Enter must not take it.
const fitting = computed(() => found.value.filter((t) => fold(t.name).startsWith(begun.value)));
const isNew = computed(() => begun.value && !fitting.value.some((t) => fold(t.name) === begun.value));

async function look(): Promise<void> {
  found.value = (
    await ask(routes.tags.suggest, { query: { begins: text.value.trim() } }).catch(() => ({ tags: [] }))
  ).tags.filter((t) => !t.subject);
}
watchDebounced(text, look, { debounce: 60, immediate: true });

function add(name: string | null): void {
  if (!name?.trim()) return;
  emit('add', name.trim());
  text.value = '';
  if (input.value) input.value.el.value = '';
}

function focus(): void {
  if (!input.value) return;
  place(input.value.el);
  input.value.el.focus();
}
// Whoever shows it means to type.
onMounted(focus);
defineExpose({ focus });
</script>

<template>
  <Combobox :model-value="null" nullable as="div" class="relative" @update:model-value="add">
    <ComboboxInput
      ref="input"
      class="field !py-0.5"
      placeholder="Name of the tag"
      aria-label="Add a tag"
      autocomplete="off"
      @change="text = $event.target.value"
      @keydown.esc.stop="emit('done')"
    />
    <ComboboxOptions static class="menu overflow-auto" :style="style">
      <ComboboxOption v-for="t in fitting" :key="t.id" v-slot="{ active }" :value="t.name" as="template"
        ><li class="flex justify-between px-3 py-1" :class="active && 'bg-verdtint'">
          <span class="tag">{{ t.name }}</span><span class="count">{{ t.count }}</span>
        </li></ComboboxOption
      >
      <ComboboxOption v-if="isNew" v-slot="{ active }" :value="text.trim()" as="template"
        ><li class="px-3 py-1" :class="active && 'bg-verdtint'">New tag “{{ text.trim() }}”</li></ComboboxOption
      >
    </ComboboxOptions>
  </Combobox>
</template>
