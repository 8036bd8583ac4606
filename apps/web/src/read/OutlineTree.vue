<script setup lang="ts">
/** The headings of a document, as its file lists them, each leading there. */
import KitButton from '../kit/KitButton.vue';

export interface Heading {
  title: string;
  dest: string | unknown[] | null;
  items: Heading[];
}
defineProps<{ headings: Heading[] }>();
const emit = defineEmits<{ follow: [dest: string | unknown[]] }>();
</script>

<template>
  <ul class="pl-3 first:pl-0">
    <li v-for="(h, i) in headings" :key="i">
      <KitButton
        look="bare"
        class="block w-full rounded px-1.5 py-0.5 text-left hover:bg-mist/40"
        :disabled="!h.dest"
        @click="h.dest && emit('follow', h.dest)"
        >{{ h.title }}</KitButton
      >
      <OutlineTree v-if="h.items.length" :headings="h.items" @follow="emit('follow', $event)" />
    </li>
  </ul>
</template>
