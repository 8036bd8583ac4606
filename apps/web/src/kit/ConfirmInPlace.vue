<script setup lang="ts">
/** A button for what cannot be taken back: it asks where it stands, and the first answer is to leave it. */
import { nextTick, ref, useTemplateRef, type ComponentPublicInstance } from 'vue';
import KitButton from './KitButton.vue';

defineProps<{ does: string; asks: string; yes: string; no: string }>();
const emit = defineEmits<{ confirm: [] }>();
const asking = ref(false);
const first = useTemplateRef<ComponentPublicInstance>('first');
const opener = useTemplateRef<ComponentPublicInstance>('opener');

async function ask(now: boolean): Promise<void> {
  asking.value = now;
  await nextTick();
  ((now ? first : opener).value?.$el as HTMLElement | undefined)?.focus();
}
</script>

<template>
  <KitButton v-if="!asking" ref="opener" look="warn" @click="ask(true)">{{ does }}</KitButton>
  <span
    v-else
    class="inline-flex flex-wrap items-baseline gap-x-2"
    role="group"
    :aria-label="asks"
    @keydown.esc.stop="ask(false)"
    ><span>{{ asks }}</span
    ><KitButton ref="first" look="word" @click="ask(false)">{{ no }}</KitButton
    ><KitButton look="warn" @click="(ask(false), emit('confirm'))">{{ yes }}</KitButton></span
  >
</template>
