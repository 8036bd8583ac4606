<script setup lang="ts">
/** A picture that is kept beside a source: how a page of the web looked, or the photograph a text was recognised from. */
import { ref, watch } from 'vue';
import KitNotice from '../kit/KitNotice.vue';

const props = defineProps<{ address: string; name: string }>();
const failed = ref(false);
watch(
  () => props.address,
  () => (failed.value = false),
);
</script>

<template>
  <div class="overflow-auto p-6" tabindex="0" role="document" aria-label="Picture">
    <KitNotice v-if="failed" tone="plain"
      >This browser cannot show this kind of picture. Download the file from the column on the right.</KitNotice
    >
    <img v-else class="mx-auto max-w-full bg-white shadow" :src="address" :alt="name" @error="failed = true" />
  </div>
</template>
