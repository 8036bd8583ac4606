<script setup lang="ts" generic="V extends string | null | undefined">
/** One of a few things, chosen from a list. */
defineOptions({ inheritAttrs: false });
defineProps<{ label?: string; above?: boolean; options: { value: V; name: string }[] }>();
const value = defineModel<V>();
</script>

<template>
  <component :is="above ? 'label' : 'div'" class="block" :class="$attrs.class">
    <span v-if="above" class="heading mb-1 block">{{ label }}</span>
    <select
      v-bind="{ ...$attrs, class: undefined }"
      v-model="value"
      class="w-full rounded-[5px] border border-edge bg-card px-2 py-1 text-ink disabled:border-line disabled:bg-panel disabled:text-muted"
      :aria-label="above ? undefined : label"
    >
      <option v-for="o in options" :key="String(o.value)" :value="o.value">{{ o.name }}</option>
    </select>
  </component>
</template>
