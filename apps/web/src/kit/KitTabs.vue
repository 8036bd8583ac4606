<script setup lang="ts" generic="Tab extends { key: string; name: string; to: string }">
/** What is open side by side, each at an address of its own; one of them is looked at, each can be closed. */
import { X } from '@lucide/vue';
import { RouterLink } from 'vue-router';
import KitButton from './KitButton.vue';

defineProps<{ label: string; tabs: Tab[]; current: string | undefined }>();
const emit = defineEmits<{ close: [Tab] }>();
</script>

<template>
  <nav class="flex h-9 shrink-0 items-end gap-[3px] overflow-x-auto px-4 pt-1.5" :aria-label="label">
    <div
      v-for="t in tabs"
      :key="t.key"
      class="flex max-w-64 items-center rounded-t-md py-0.5 pl-3 pr-1"
      :class="t.key === current ? 'bg-paper font-semibold' : 'text-muted'"
    >
      <RouterLink :to="t.to" :aria-current="t.key === current ? 'page' : undefined" class="truncate">{{
        t.name
      }}</RouterLink>
      <KitButton look="icon" :name="`Close ${t.name}`" @click="emit('close', t)"><X :size="13" /></KitButton>
    </div>
  </nav>
</template>
