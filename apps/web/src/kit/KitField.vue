<script setup lang="ts">
/** A line or lines to write in. What it is called stands above it, or is told to those who do not see it. */
import { useTemplateRef } from 'vue';
import { BOX } from './looks.ts';

defineOptions({ inheritAttrs: false });
const { look = 'box', lines = 0 } = defineProps<{
  label?: string;
  /** Whether the label is seen, above it. */
  above?: boolean;
  /** Room for so many lines; one that cannot be more where it is not said. */
  lines?: number;
  look?: 'box' | 'bare';
  /** What is wrong with what stands in it, and what else is to be known of it. */
  error?: string;
  hint?: string;
}>();
const text = defineModel<string | number>();
const control = useTemplateRef<HTMLInputElement | HTMLTextAreaElement>('control');
defineExpose({
  focus: (how?: FocusOptions): void => control.value?.focus(how),
  /** All of it, or from one place to another. */
  select: (from = 0, to = control.value?.value.length ?? 0): void => control.value?.setSelectionRange(from, to),
  blur: (): void => control.value?.blur(),
  /** Puts the caret at a place. */
  placeCaret: (at: number): void => control.value?.setSelectionRange(at, at),
  /** Where the caret is. */
  caret: (): number | null => control.value?.selectionStart ?? null,
});
</script>

<template>
  <component :is="above ? 'label' : 'div'" class="block" :class="$attrs.class">
    <span v-if="above" class="heading mb-1 block">{{ label }}</span>
    <component
      :is="lines ? 'textarea' : 'input'"
      v-bind="{ ...$attrs, class: undefined }"
      ref="control"
      :rows="lines || undefined"
      :value="text"
      :class="[look === 'box' ? BOX : 'w-full bg-transparent [text-align:inherit]', lines && 'block resize-y']"
      :aria-label="above ? undefined : label"
      :aria-invalid="error ? true : undefined"
      @input="text = $event.target.value"
    />
    <span v-if="error" class="block text-label text-ochre" role="status">{{ error }}</span>
    <span v-if="hint" class="block text-label text-muted">{{ hint }}</span>
  </component>
</template>
