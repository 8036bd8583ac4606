<script setup lang="ts">
import { computed } from 'vue';
import { KINDS, type Kind } from '@pandecta/core/source';

const props = defineProps<{ kind: Kind }>();
const info = computed(() => KINDS[props.kind]);
const colour = computed(
  () => ({ law: 'text-plum', archive: 'text-ochre', text: 'text-verdigris', other: 'text-muted' })[info.value.group],
);
</script>

<template>
  <span
    :class="colour"
    class="inline-grid h-5 w-[26px] shrink-0 place-items-center rounded-[3px] border border-current font-mono text-label font-medium"
    :title="info.name"
  >
    <span aria-hidden="true">{{ info.stamp }}</span><span class="sr-only">{{ info.name }}</span>
  </span>
</template>
