<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import DropFiles from '../gather/DropFiles.vue';
import { useLive } from '../data/live.ts';
import { useAsk } from '../sources/index.ts';
import EmptyState from '../kit/EmptyState.vue';
import { NoteSheet } from '../notes/index.ts';
import PasswordDialog from '../session/PasswordDialog.vue';
import { useSession } from '../session/store.ts';
import CommandPalette from './CommandPalette.vue';
import { useChanges } from '../act/changes.ts';
import { answerKey, useDeeds } from '../act/commands.ts';
import { useAskBeforeLeaving } from '../act/leaving.ts';
import { useUnsent } from '../act/unsent.ts';
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
const passwordOpen = ref(false);

const router = useRouter();
const ask = useAsk();
const signOut = (): void => void (useUnsent().mayLeave() && session.signOut());
useDeeds({
  'to-sources': () => router.push(ask.address),
  'to-gather': () => router.push('/gather'),
  'bring-in': () => router.push('/gather?type'),
  'to-check': () => router.push('/check'),
  'to-proofing': () => router.push('/check/proofing'),
  'to-read': () => router.push('/read'),
  'to-notes': () => router.push('/notes'),
  loose: () => router.push('/sources?scope=loose'),
  starred: () => router.push('/sources?include=star%3Dyes'),
  bin: () => router.push('/sources?scope=bin'),
  activity: () => router.push('/sources/history'),
  archives: () => router.push('/sources/archives'),
  vocabulary: () => router.push('/sources/tags'),
  palette: () => (paletteOpen.value = true),
  keys: () => (keysOpen.value = true),
  undo: () => void changes.undo(),
  redo: () => void changes.redo(),
  password: () => (passwordOpen.value = true),
  'sign-out': signOut,
});
useAskBeforeLeaving();
useEventListener('keydown', (event: KeyboardEvent) => inside.value && answerKey(event));
</script>

<template>
  <div class="flex h-full flex-col print:block print:h-auto">
    <template v-if="inside">
      <TopBar
        class="print:hidden"
        @keys="keysOpen = true"
        @commands="paletteOpen = true"
        @password="passwordOpen = true"
        @sign-out="signOut"
      />
      <div class="relative flex min-h-0 flex-1 print:block">
        <main class="min-h-0 min-w-0 flex-1 print:h-auto"><RouterView /></main>
        <NoteSheet class="print:hidden" />
      </div>
      <DropFiles />
      <KeysList v-model:open="keysOpen" />
      <CommandPalette v-model:open="paletteOpen" />
      <PasswordDialog
        v-model:open="passwordOpen"
        @changed="changes.tell('Your password is changed; all your other sessions have ended.')"
      />
    </template>
    <div v-else-if="session.away" class="grid flex-1 place-items-center" role="status">
      <EmptyState title="The server does not answer just now"
        >Nothing is lost. This page continues by itself as soon as it answers.</EmptyState
      >
    </div>
    <RouterView v-else />
  </div>
</template>
