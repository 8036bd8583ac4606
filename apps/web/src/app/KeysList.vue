<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue';
import { keysByPlace } from './commands.ts';

defineProps<{ open: boolean }>();
const emit = defineEmits<{ 'update:open': [boolean] }>();
</script>

<template>
  <Dialog :open="open" class="relative z-40" @close="emit('update:open', false)">
    <div class="fixed inset-0 flex items-start justify-end bg-black/20">
      <DialogPanel class="h-full w-96 overflow-auto border-l border-line bg-card p-6">
        <div class="flex items-baseline justify-between">
          <DialogTitle class="font-serif text-title font-semibold">Keys</DialogTitle>
          <button class="btn" @click="emit('update:open', false)">Close</button>
        </div>
        <section v-for="group in keysByPlace()" :key="group.where" class="mt-5">
          <h3 class="heading mb-1">{{ group.where }}</h3>
          <dl class="grid grid-cols-[8.5rem_1fr] gap-y-1">
            <template v-for="k in group.keys" :key="k.keys">
              <dt class="font-mono text-fine">{{ k.keys }}</dt>
              <dd>{{ k.does }}</dd>
            </template>
          </dl>
        </section>
      </DialogPanel>
    </div>
  </Dialog>
</template>
