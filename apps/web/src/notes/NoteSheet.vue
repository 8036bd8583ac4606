<script setup lang="ts">
/** A note beside whatever one looks at. */
import { useRouter } from 'vue-router';
import { useNoting } from '../act/noting.ts';
import NotePane from './NotePane.vue';

const noting = useNoting();
const router = useRouter();
function heading(id: string): void {
  noting.close();
  void router.push(`/notes?heading=${id}`);
}
</script>

<template>
  <aside
    v-if="noting.open"
    class="absolute inset-y-0 right-0 z-30 flex w-[400px] max-w-full flex-col border-l border-line bg-paper shadow-xl lg:static lg:shrink-0 lg:shadow-none"
    aria-label="Note"
    @keydown.esc="noting.close()"
  >
    <NotePane
      class="flex-1"
      :id="noting.open === 'new' ? null : noting.open"
      :begins="noting.begins"
      @made="noting.open = $event"
      @open="noting.open = $event"
      @heading="heading"
      @close="noting.close()"
    />
  </aside>
</template>
