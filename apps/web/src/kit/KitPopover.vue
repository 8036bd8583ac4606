<script setup lang="ts">
/** A button that opens something to look at or choose in, beside it. */
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue';
import { useTemplateRef, type ComponentPublicInstance } from 'vue';
import { useBeside } from './floating.ts';
import KitButton from './KitButton.vue';

defineOptions({ inheritAttrs: false });
const { look = 'plain', at = 'bottom-start' } = defineProps<{
  look?: InstanceType<typeof KitButton>['$props']['look'];
  name?: string;
  at?: 'bottom-start' | 'bottom-end';
  /** Whether one means to write or choose in it at once. */
  focus?: boolean;
}>();
const emit = defineEmits<{ open: [] }>();
const button = useTemplateRef<ComponentPublicInstance>('button');
const panel = useTemplateRef<HTMLElement>('panel');
const style = useBeside(button, panel, at);
</script>

<template>
  <Popover v-slot="{ open, close }">
    <PopoverButton ref="button" v-bind="$attrs" :as="KitButton" :look="look" :name="name" @click="emit('open')"
      ><slot name="button"
    /></PopoverButton>
    <div
      v-if="open"
      ref="panel"
      class="z-40 flex flex-col overflow-auto rounded-md border border-line bg-card text-body text-ink shadow-lg"
      :style="style"
    >
      <PopoverPanel static :focus="focus" class="flex min-h-0 flex-col outline-none"
        ><slot :close="close"
      /></PopoverPanel>
    </div>
  </Popover>
</template>
