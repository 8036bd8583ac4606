<script setup lang="ts">
/** A line of a list: whether it is the one one is at, or selected, is seen in its ground. */
defineProps<{ on?: boolean }>();
</script>

<template>
  <div class="h-full border-b border-line px-4" :class="on ? 'bg-verdtint' : 'hover:bg-panel'"><slot /></div>
</template>
