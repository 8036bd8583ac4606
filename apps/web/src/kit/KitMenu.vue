<script setup lang="ts">
/** A button that opens a list of things to do. */
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue';
import { useTemplateRef, type ComponentPublicInstance } from 'vue';
import { useBeside } from './floating.ts';
import KitButton from './KitButton.vue';

export interface MenuEntry {
  name: string;
  run?: (event: MouseEvent) => unknown;
  /** An address outside the page, instead of something to do. */
  href?: string;
  /** What stands at its end: a key, a role. */
  hint?: string;
  /** What stands before it: a tick, an arrow. */
  sign?: string;
  /** Set where it turns something on and off: the menu stays. */
  checked?: boolean;
  /** It takes something away. */
  warn?: boolean;
}

defineOptions({ inheritAttrs: false });
const { look = 'plain', at = 'bottom-start' } = defineProps<{
  entries: MenuEntry[];
  look?: InstanceType<typeof KitButton>['$props']['look'];
  name?: string;
  at?: 'bottom-start' | 'bottom-end';
}>();
const button = useTemplateRef<ComponentPublicInstance>('button');
const list = useTemplateRef<HTMLElement>('list');
const style = useBeside(button, list, at);

function take(entry: MenuEntry, event: MouseEvent): void {
  if (entry.checked !== undefined) event.preventDefault();
  entry.run?.(event);
}
</script>

<template>
  <Menu v-slot="{ open }">
    <MenuButton ref="button" v-bind="$attrs" :as="KitButton" :look="look" :name="name"><slot /></MenuButton>
    <div
      v-if="open"
      ref="list"
      class="z-40 min-w-44 overflow-auto rounded-md border border-line bg-card py-1 text-body font-normal text-ink shadow-lg"
      :style="style"
    >
      <slot name="top" />
      <MenuItems static class="outline-none">
        <MenuItem v-for="e in entries" :key="e.name" v-slot="{ active }" as="template">
          <component
            :is="e.href ? 'a' : 'button'"
            class="flex w-full items-center gap-2 px-3 py-1 text-left"
            :class="[active && 'bg-verdtint', e.warn && 'text-madder']"
            :href="e.href"
            :target="e.href && '_blank'"
            @click="take(e, $event)"
          >
            <span
              v-if="e.sign !== undefined || e.checked !== undefined"
              class="w-4 shrink-0 font-mono"
              aria-hidden="true"
              >{{ e.sign ?? (e.checked ? '✓' : '') }}</span><span class="truncate">{{ e.name }}</span
            ><span v-if="e.checked !== undefined" class="sr-only">{{ e.checked ? ', on' : ', off' }}</span
            ><span v-if="e.hint" class="ml-auto shrink-0 pl-4 font-mono text-label text-muted">{{ e.hint }}</span>
          </component>
        </MenuItem>
      </MenuItems>
      <slot name="bottom" />
    </div>
  </Menu>
</template>
