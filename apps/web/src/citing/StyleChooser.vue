<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue';
import { ChevronDown } from '@lucide/vue';
import { watchDebounced } from '@vueuse/core';
import { ref } from 'vue';
import type { StyleInfo } from '@pandecta/core/citing';
import { useFloating } from '../kit/floating.ts';
import { useCiting } from './store.ts';

const citing = useCiting();
const like = ref('');
const found = ref<StyleInfo[]>([]);
const { style, place } = useFloating(416);

async function look(): Promise<void> {
  found.value = await citing.find(like.value).catch(() => []);
}
watchDebounced(like, look, { debounce: 120 });
const names = new Intl.DisplayNames(['en'], { type: 'language' });
</script>

<template>
  <Popover v-slot="{ close }" class="relative">
    <PopoverButton
      class="inline-flex items-center gap-0.5 text-fine text-muted hover:text-ink"
      @click="(place($event), look())"
      >Style<ChevronDown :size="12" aria-hidden="true"
    /></PopoverButton>
    <PopoverPanel focus class="menu flex flex-col px-2 py-2 text-ink" :style="style">
      <input v-model="like" class="field" placeholder="Any style by name" aria-label="Find a style" />
      <ul class="my-1 min-h-0 overflow-auto">
        <li v-for="s in found" :key="s.id">
          <button
            class="flex w-full items-baseline gap-3 rounded px-2 py-1 text-left hover:bg-verdtint"
            :aria-pressed="s.id === citing.style.id"
            :class="s.id === citing.style.id && 'font-semibold text-verdigris'"
            @click="((citing.style = s), close())"
          >
            <span class="flex-1">{{ s.title }}</span><span class="text-fine text-muted">{{ s.manner }}</span>
          </button>
        </li>
        <li v-if="!found.length" class="px-2 py-1 text-muted">No style of this name is installed.</li>
      </ul>
      <label class="flex items-center gap-2 border-t border-line pt-2">
        <span class="heading">Language</span>
        <select v-model="citing.locale" class="field !w-auto flex-1">
          <option value="">
            As the style is made{{ citing.style.language ? ` (${names.of(citing.style.language)})` : '' }}
          </option>
          <option v-for="l in citing.locales" :key="l" :value="l">{{ names.of(l) }} ({{ l }})</option>
        </select>
      </label>
    </PopoverPanel>
  </Popover>
</template>
