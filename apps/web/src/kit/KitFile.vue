<script setup lang="ts">
/** Asks for files of the computer, when it is told to: what is seen of it is a button elsewhere. */
import { useTemplateRef } from 'vue';

defineProps<{ label: string; multiple?: boolean }>();
const emit = defineEmits<{ chosen: [File[]] }>();
const input = useTemplateRef<HTMLInputElement>('input');

function take(): void {
  const files = [...(input.value?.files ?? [])];
  input.value!.value = '';
  if (files.length) emit('chosen', files);
}
defineExpose({ ask: (): void => input.value?.click() });
</script>

<template>
  <input ref="input" type="file" class="hidden" :multiple="multiple" :aria-label="label" @change="take" />
</template>
