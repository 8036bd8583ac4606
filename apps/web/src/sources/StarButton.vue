<script setup lang="ts">
/** One's own star on sources: seen by no one else. */
import type { Chosen } from '@pandecta/contract';
import { Star } from '@lucide/vue';
import KitButton from '../kit/KitButton.vue';
import { useSession } from '../session/store.ts';
import { useBatch } from './batch.ts';

defineProps<{ chosen: Chosen; starred: boolean }>();
const batch = useBatch();
const session = useSession();
</script>

<template>
  <KitButton
    v-if="session.may('own')"
    :aria-pressed="starred"
    :title="starred ? 'Remove your star (s)' : 'Star for yourself (s)'"
    @click="batch.star(chosen, !starred)"
    ><Star
      :size="13"
      :fill="starred ? 'currentColor' : 'none'"
      :class="starred && 'text-verdigris'"
      aria-hidden="true"
    />{{ starred ? 'Starred' : 'Star' }}</KitButton
  >
</template>
