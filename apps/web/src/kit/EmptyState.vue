<script setup lang="ts">
/** What stands where nothing is: why, and what one can do. */
defineProps<{ title?: string }>();
</script>

<template>
  <div class="mx-auto max-w-md p-10 text-center">
    <h2 v-if="title" class="font-serif text-title">{{ title }}</h2>
    <p class="text-muted"><slot /></p>
    <div v-if="$slots.deeds" class="mt-3"><slot name="deeds" /></div>
  </div>
</template>
