<script setup lang="ts">
/** A sentence that must be read: what went wrong is told at once, all else in its turn. */
const { tone = 'plain' } = defineProps<{ tone?: 'plain' | 'bad' | 'warn'; boxed?: boolean }>();
const TONES = {
  plain: ['text-muted', 'bg-panel text-ink'],
  bad: ['text-madder', 'bg-maddertint text-madder'],
  warn: ['text-ochre', 'bg-ochretint text-ochre'],
} as const;
</script>

<template>
  <p :role="tone === 'bad' ? 'alert' : 'status'" :class="[TONES[tone][boxed ? 1 : 0], boxed && 'rounded px-3 py-2']">
    <slot />
  </p>
</template>
