<script setup lang="ts">
/** Something that stands over the page until it is closed: a box near the top, a sheet along the side, or as wide as the page. */
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue';
import { watch } from 'vue';
import KitButton from './KitButton.vue';

const { at = 'top' } = defineProps<{ title: string; at?: 'top' | 'side' | 'page' }>();
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
      :class="{ side: 'justify-end', top: 'justify-center px-4 pt-24', page: 'justify-center p-4' }[at]"
    >
      <DialogPanel
        class="border-line bg-card"
        :class="
          {
            side: 'h-full w-96 max-w-full overflow-auto border-l p-6',
            top: 'w-full max-w-[36rem] rounded-md border shadow-xl',
            page: 'max-h-full w-full max-w-[64rem] overflow-auto rounded-md border p-6 shadow-xl',
          }[at]
        "
        @keydown.esc.capture.stop.prevent="open = false"
      >
        <div v-if="at !== 'top'" class="flex items-baseline justify-between">
          <DialogTitle class="font-serif text-title font-semibold">{{ title }}</DialogTitle>
          <KitButton @click="open = false">Close</KitButton>
        </div>
        <DialogTitle v-else class="heading px-4 pt-3">{{ title }}</DialogTitle>
        <slot />
      </DialogPanel>
    </div>
  </Dialog>
</template>
