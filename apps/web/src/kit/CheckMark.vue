<script setup lang="ts">
/** The box of a line, for the pointer: the line itself says whether it is selected, and a key selects it. */
import { Check } from '@lucide/vue';

defineProps<{ checked: boolean }>();
const emit = defineEmits<{ check: [] }>();
</script>

<template>
  <span
    class="grid h-3.5 w-3.5 cursor-pointer place-items-center rounded-[3px] border"
    :class="checked ? 'border-verdigris bg-verdigris text-card' : 'border-edge bg-card'"
    aria-hidden="true"
    @click.stop="emit('check')"
    ><Check v-if="checked" :size="11" :stroke-width="3"
  /></span>
</template>
