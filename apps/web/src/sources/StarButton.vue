<script setup lang="ts">
/** One's own star on sources: seen by no one else. */
import type { Chosen } from '@pandecta/contract';
import { Star } from '@lucide/vue';
import { useSession } from '../session/store.ts';
import { useBatch } from './batch.ts';

defineProps<{ chosen: Chosen; starred: boolean }>();
const batch = useBatch();
const session = useSession();
</script>

<template>
  <button
    v-if="session.may('own')"
    class="btn inline-flex items-center gap-1"
    :aria-pressed="starred"
    :title="starred ? 'Take your star away (s)' : 'Star for yourself (s)'"
    @click="batch.star(chosen, !starred)"
  >
    <Star
      :size="13"
      :fill="starred ? 'currentColor' : 'none'"
      :class="starred && 'text-verdigris'"
      aria-hidden="true"
    />{{ starred ? 'Starred' : 'Star' }}
  </button>
</template>
