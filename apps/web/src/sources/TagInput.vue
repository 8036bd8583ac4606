<script setup lang="ts">
/** Adds one tag by typing its name: those there are that begin so come first, then a new one of that name. */
import { watchDebounced } from '@vueuse/core';
import { computed, nextTick, onBeforeUnmount, onMounted, ref, useTemplateRef } from 'vue';
import { routes, type TagSuggestion } from '@pandecta/contract';
import { fold } from '@pandecta/core/words';
import { ask } from '../api/client.ts';
import KitCombobox from '../kit/KitCombobox.vue';

const emit = defineEmits<{ add: [name: string]; done: [] }>();
const text = ref('');
const found = ref<TagSuggestion[]>([]);
const input = useTemplateRef<{ focus(): void }>('input');
const begun = computed(() => fold(text.value.trim()));
// What was found may be for fewer letters than there are now: Enter must not take it.
const fitting = computed(() => found.value.filter((t) => fold(t.name).startsWith(begun.value)));
const isNew = computed(() => begun.value && !fitting.value.some((t) => fold(t.name) === begun.value));
const entries = computed(() => [
  ...fitting.value.map((t) => ({ key: t.id, name: t.name, count: t.count })),
  ...(isNew.value ? [{ key: 'new', name: text.value.trim(), count: null }] : []),
]);

async function look(): Promise<void> {
  found.value = (
    await ask(routes.tags.suggest, { query: { begins: text.value.trim() } }).catch(() => ({ tags: [] }))
  ).tags.filter((t) => !t.subject);
}
watchDebounced(text, look, { debounce: 60, immediate: true });

const focus = (): void => input.value?.focus();
/** Where the keys were before. */
let before: HTMLElement | null = null;
// Whoever shows it means to type; afterwards the keys go where they went before.
onMounted(() => {
  before = document.activeElement as HTMLElement | null;
  focus();
});
onBeforeUnmount(() => void nextTick(() => before?.isConnected && before.focus()));
defineExpose({ focus });
</script>

<template>
  <KitCombobox
    ref="input"
    v-slot="{ entry }"
    v-model:text="text"
    label="Add a tag"
    placeholder="Name of the tag"
    :entries="entries"
    @choose="(emit('add', $event.name), emit('done'))"
    @done="emit('done')"
  >
    <template v-if="entry.count === null">New tag “{{ entry.name }}”</template>
    <template v-else
      ><span class="tag">{{ entry.name }}</span
      ><span class="count">{{ entry.count }}</span></template
    >
  </KitCombobox>
</template>
