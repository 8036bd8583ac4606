<script setup lang="ts">
import EmptyState from '../kit/EmptyState.vue';
import KitButton from '../kit/KitButton.vue';
</script>

<template>
  <div class="grid h-full place-items-center">
    <EmptyState title="There is nothing at this address"
      >The link may be out of date or incomplete.<template #deeds
        ><KitButton to="/sources">To the sources</KitButton></template
      ></EmptyState
    >
  </div>
</template>
