<script setup lang="ts">
/** The card one stands before while nobody is signed in: its fields, what went wrong, and the one thing to do. */
import KitButton from '../kit/KitButton.vue';
import KitNotice from '../kit/KitNotice.vue';

defineProps<{ says: string; does: string; doing: string; busy: boolean; error: string; waits?: boolean }>();
const emit = defineEmits<{ submit: [] }>();
</script>

<template>
  <main class="grid h-full place-items-center bg-panel p-6">
    <form class="w-[22rem] rounded-md border border-line bg-card p-7" @submit.prevent="emit('submit')">
      <h1 class="font-serif text-display font-semibold">Pandecta<span class="text-verdigris">.</span></h1>
      <p class="mb-5 mt-1 text-muted">{{ says }}</p>
      <slot />
      <KitNotice v-if="error" tone="bad" boxed class="mb-4">{{ error }}</KitNotice>
      <KitButton look="main" type="submit" class="w-full justify-center py-1.5" :disabled="busy || waits">{{
        busy ? doing : does
      }}</KitButton>
    </form>
  </main>
</template>
