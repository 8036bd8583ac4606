<script setup lang="ts">
/** `f`: files the chosen sources by typing the name of a collection, or makes one of that name. */
import {
  Combobox,
  ComboboxInput,
  ComboboxOption,
  ComboboxOptions,
  Dialog,
  DialogPanel,
  DialogTitle,
} from '@headlessui/vue';
import { computed, ref, watch } from 'vue';
import { countSources } from '@pandecta/core/source';
import { usePlaces } from '../places/store.ts';

const props = defineProps<{ open: boolean; ids: string[] }>();
const emit = defineEmits<{ 'update:open': [boolean] }>();
const places = usePlaces();
const text = ref('');
watch(
  () => props.open,
  () => (text.value = ''),
);

const found = computed(() => {
  const words = text.value.toLowerCase().split(/\s+/).filter(Boolean);
  return places.flat.filter((c) => words.every((w) => c.path.toLowerCase().includes(w))).slice(0, 40);
});
const fresh = computed(
  () => text.value.trim() && !places.flat.some((c) => c.name.toLowerCase() === text.value.trim().toLowerCase()),
);

async function choose(id: string | null): Promise<void> {
  if (!id) return;
  emit('update:open', false);
  const target = id === 'new' ? (await places.make(text.value.trim()))?.id : id;
  if (target) await places.file(props.ids, target);
}
</script>

<template>
  <Dialog :open="open" class="relative z-40" @close="emit('update:open', false)">
    <div class="fixed inset-0 flex items-start justify-center bg-black/20 pt-24">
      <DialogPanel class="w-[30rem] rounded-md border border-line bg-card shadow-xl">
        <DialogTitle class="heading px-4 pt-3">File {{ countSources(ids.length) }} in</DialogTitle>
        <Combobox :model-value="null" nullable @update:model-value="choose">
          <ComboboxInput
            class="w-full border-b border-line bg-card px-4 py-2 text-[15px]"
            placeholder="Name of a collection"
            aria-label="Name of a collection"
            autocomplete="off"
            @change="text = $event.target.value"
          />
          <ComboboxOptions static class="max-h-72 overflow-auto py-1">
            <ComboboxOption v-for="c in found" :key="c.path" v-slot="{ active }" :value="c.id" as="template"
              ><li class="flex justify-between px-4 py-1.5" :class="active && 'bg-verdtint'">
                {{ c.path }}<span class="count">{{ c.count }}</span>
              </li></ComboboxOption
            >
            <ComboboxOption v-if="fresh" v-slot="{ active }" value="new" as="template"
              ><li class="px-4 py-1.5" :class="active && 'bg-verdtint'">
                New collection “{{ text.trim() }}”
              </li></ComboboxOption
            >
          </ComboboxOptions>
        </Combobox>
      </DialogPanel>
    </div>
  </Dialog>
</template>
