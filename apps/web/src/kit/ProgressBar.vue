<script setup lang="ts">
/** How far something is; without an end that is known it only shows that it goes on. */
const { value, max = 1 } = defineProps<{ label: string; value: number; max?: number }>();
</script>

<template>
  <div
    class="h-1.5 w-full overflow-hidden rounded-full bg-line"
    role="progressbar"
    :aria-label="label"
    aria-valuemin="0"
    :aria-valuemax="max || undefined"
    :aria-valuenow="max ? value : undefined"
  >
    <div
      class="h-full rounded-full bg-verdigris transition-[width]"
      :class="!max && 'w-1/4 animate-pulse'"
      :style="max ? { width: `${Math.min(100, (100 * value) / max)}%` } : undefined"
    />
  </div>
</template>
