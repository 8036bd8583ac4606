<script setup lang="ts">
/** A page of the web as it was kept: shown by itself, with nothing of it run. */
defineProps<{ address: string; name: string }>();
</script>

<template>
  <iframe class="h-full w-full border-0 bg-white" sandbox="" :src="address" :title="name" />
</template>
