<script setup lang="ts">
/** A collection that is offered: its path, and how many sources it holds. */
import type { Offer } from '../../places/store.ts';

defineProps<{ offer: Offer }>();
</script>

<template>
  <span class="min-w-0 flex-1 truncate">{{ offer.name }}</span><span class="count">{{ offer.count }}</span>
</template>
