<script setup lang="ts">
/** A label of the workspace: its letter in its tint, its name and what it means on hover. */
import type { LabelOnSource } from '@pandecta/contract';
import { tintOf } from './tints.ts';

defineProps<{ label: Pick<LabelOnSource, 'name' | 'letter' | 'tint' | 'says'>; named?: boolean }>();
</script>

<template>
  <span
    class="inline-flex items-center gap-1 whitespace-nowrap"
    :title="label.says ? `${label.name}: ${label.says}` : label.name"
    ><span
      class="grid h-[17px] min-w-[17px] place-items-center rounded-[3px] px-1 font-mono text-[10.5px] font-medium leading-none text-[#1f262d]"
      :style="{ background: tintOf(label.tint) }"
      aria-hidden="true"
      >{{ label.letter }}</span
    ><span :class="named ? 'text-fine' : 'sr-only'">{{ label.name }}</span></span
  >
</template>
