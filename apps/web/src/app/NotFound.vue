<script setup lang="ts">
import EmptyState from '../kit/EmptyState.vue';
import KitButton from '../kit/KitButton.vue';
</script>

<template>
  <div class="grid h-full place-items-center">
    <EmptyState title="There is nothing at this address"
      >The link may be old, or a letter of it may be missing.<template #deeds
        ><KitButton to="/sources">To the sources</KitButton></template
      ></EmptyState
    >
  </div>
</template>
