<script setup lang="ts">
/** The senses a mark may be given, with the sentence that says what each is for while one chooses. */
import { ref } from 'vue';
import type { Sense } from '@pandecta/core/marks';
import KitButton from '../kit/KitButton.vue';
import { FILL } from './colours.ts';

defineProps<{ senses: Sense[]; chosen?: string | undefined; disabled?: boolean }>();
const emit = defineEmits<{ choose: [sense: string] }>();
const looked = ref<Sense | null>(null);
</script>

<template>
  <div class="flex max-w-md flex-col gap-1" @mouseleave="looked = null">
    <div class="flex flex-wrap gap-1">
      <KitButton
        v-for="s in senses"
        :key="s.id"
        look="bare"
        class="rounded px-2 py-0.5 text-fine whitespace-nowrap text-[#1f262d]"
        :class="[FILL[s.colour], s.id === chosen && 'outline-2 outline-verdigris']"
        :aria-pressed="chosen ? s.id === chosen : undefined"
        :title="s.says || undefined"
        :disabled="disabled"
        @mousedown.prevent
        @mouseenter="looked = s"
        @focus="looked = s"
        @click="emit('choose', s.id)"
      >
        {{ s.key ?? '' }} {{ s.name }}
      </KitButton>
    </div>
    <p class="min-h-4 px-1 text-label text-muted" aria-live="polite">{{ looked?.says ?? '' }}</p>
  </div>
</template>
