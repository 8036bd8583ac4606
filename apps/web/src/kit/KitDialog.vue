<script setup lang="ts">
/** Something that stands over the page until it is closed: a box near the top, or a sheet along the side. */
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue';
import { watch } from 'vue';
import KitButton from './KitButton.vue';

const { at = 'top' } = defineProps<{ title: string; at?: 'top' | 'side' }>();
const open = defineModel<boolean>('open', { required: true });
let before: Element | null = null;
watch(
  open,
  (now) => {
    if (now) before = document.activeElement;
    // The dialog gives focus back to what it knows of; where that is nothing, keys go on where they were.
    else
      requestAnimationFrame(() => document.activeElement === document.body && (before as HTMLElement | null)?.focus());
  },
  { flush: 'sync' },
);
</script>

<template>
  <Dialog :open="open" class="relative z-50" @close="open = false">
    <div
      class="fixed inset-0 flex items-start bg-black/20"
      :class="at === 'side' ? 'justify-end' : 'justify-center px-4 pt-24'"
    >
      <DialogPanel
        class="border-line bg-card"
        :class="
          at === 'side'
            ? 'h-full w-96 max-w-full overflow-auto border-l p-6'
            : 'w-full max-w-[36rem] rounded-md border shadow-xl'
        "
        @keydown.esc.capture.stop.prevent="open = false"
      >
        <div v-if="at === 'side'" class="flex items-baseline justify-between">
          <DialogTitle class="font-serif text-title font-semibold">{{ title }}</DialogTitle>
          <KitButton @click="open = false">Close</KitButton>
        </div>
        <DialogTitle v-else class="heading px-4 pt-3">{{ title }}</DialogTitle>
        <slot />
      </DialogPanel>
    </div>
  </Dialog>
</template>
