<script setup lang="ts">
/** Searches in the document, and goes from hit to hit. */
import { ChevronLeft, ChevronRight } from '@lucide/vue';
import { useTemplateRef } from 'vue';
import KitButton from '../kit/KitButton.vue';
import KitField from '../kit/KitField.vue';

defineProps<{ found: number; total: number; at: number; error: string }>();
const words = defineModel<string>({ required: true });
const emit = defineEmits<{ search: []; step: [by: number] }>();
const field = useTemplateRef<InstanceType<typeof KitField>>('field');

function leave(): void {
  words.value = '';
  emit('search');
  field.value?.blur();
}
defineExpose({ focus: () => field.value?.focus() });
</script>

<template>
  <div class="flex items-center gap-1.5">
    <KitField
      ref="field"
      v-model="words"
      class="w-36"
      placeholder="Search in it"
      label="Search in the document"
      @input="emit('search')"
      @keydown.enter="emit('step', $event.shiftKey ? -1 : 1)"
      @keydown.esc="leave"
    />
    <span
      v-if="words"
      class="min-w-14 whitespace-nowrap"
      :class="error ? 'text-madder' : 'text-muted'"
      :title="error || undefined"
      aria-live="polite"
      >{{ error ? 'no answer' : found ? `${at + 1} of ${total}` : 'no hit' }}</span
    >
    <KitButton class="!px-1.5" name="Previous hit" :disabled="!found" @click="emit('step', -1)"
      ><ChevronLeft :size="14"
    /></KitButton>
    <KitButton class="!px-1.5" name="Next hit" :disabled="!found" @click="emit('step', 1)"
      ><ChevronRight :size="14"
    /></KitButton>
  </div>
</template>
