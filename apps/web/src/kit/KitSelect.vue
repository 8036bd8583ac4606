<script setup lang="ts" generic="V extends string | null | undefined">
/** One of a few things, chosen from a list. */
import { computed } from 'vue';
import { BOX } from './looks.ts';

defineOptions({ inheritAttrs: false });
const props = defineProps<{
  label?: string;
  above?: boolean;
  /** No higher than the lines of text about it. */
  low?: boolean;
  /** `under`: a heading several of them stand under. */
  options: { value: V; name: string; under?: string }[];
}>();
const value = defineModel<V>();
const groups = computed(() => {
  const out = new Map<string, typeof props.options>();
  for (const o of props.options) out.set(o.under ?? '', [...(out.get(o.under ?? '') ?? []), o]);
  return out;
});
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
      <template v-for="[heading, those] in groups" :key="heading">
        <optgroup v-if="heading" :label="heading">
          <option v-for="o in those" :key="String(o.value)" :value="o.value">{{ o.name }}</option>
        </optgroup>
        <template v-else
          ><option v-for="o in those" :key="String(o.value)" :value="o.value">{{ o.name }}</option></template
        >
      </template>
    </select>
  </component>
</template>
