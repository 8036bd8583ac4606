<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import DropFiles from '../gather/DropFiles.vue';
import { useLive } from '../data/live.ts';
import { useSession } from '../session/store.ts';
import CommandPalette from './CommandPalette.vue';
import { useChanges } from './changes.ts';
import { isTyping } from './keys.ts';
import KeysList from './KeysList.vue';
import TopBar from './TopBar.vue';

const session = useSession();
const changes = useChanges();
const route = useRoute();
const inside = computed(() => session.user && !route.meta.open);
const live = useLive();
watch(inside, (now) => now && live.follow(session.workspace?.id ?? ''), { immediate: true });
const keysOpen = ref(false);
const paletteOpen = ref(false);

useEventListener('keydown', (event: KeyboardEvent) => {
  if (!inside.value) return;
  const control = event.ctrlKey || event.metaKey;
  if (control && event.key.toLowerCase() === 'k') paletteOpen.value ||= !document.querySelector('[role="dialog"]');
  else if (isTyping(event)) return;
  else if (control && event.key.toLowerCase() === 'z') void (event.shiftKey ? changes.redo() : changes.undo());
  else if (event.key === '?' && !control) keysOpen.value = true;
  else return;
  event.preventDefault();
});
</script>

<template>
  <div class="flex h-full flex-col">
    <template v-if="inside">
      <TopBar @keys="keysOpen = true" @commands="paletteOpen = true" />
      <main class="min-h-0 flex-1"><RouterView /></main>
      <DropFiles />
      <KeysList v-model:open="keysOpen" />
      <CommandPalette v-model:open="paletteOpen" />
    </template>
    <RouterView v-else />
  </div>
</template>
