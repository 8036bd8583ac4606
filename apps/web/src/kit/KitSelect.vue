<script setup lang="ts" generic="V extends string | null | undefined">
/** One of a few things, chosen from a list. */
import { BOX } from './looks.ts';

defineOptions({ inheritAttrs: false });
defineProps<{
  label?: string;
  above?: boolean;
  /** No higher than the lines of text about it. */
  low?: boolean;
  options: { value: V; name: string }[];
}>();
const value = defineModel<V>();
</script>

<template>
  <component :is="above ? 'label' : 'div'" class="block" :class="$attrs.class">
    <span v-if="above" class="heading mb-1 block">{{ label }}</span>
    <select
      v-bind="{ ...$attrs, class: undefined }"
      v-model="value"
      :class="[BOX, low && 'py-0!']"
      :aria-label="above ? undefined : label"
    >
      <option v-for="o in options" :key="String(o.value)" :value="o.value">{{ o.name }}</option>
    </select>
  </component>
</template>
