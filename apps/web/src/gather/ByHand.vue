<script setup lang="ts">
/** A source by hand: its kind and title first; it is opened to be filled in. */
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { routes } from '@pandecta/contract';
import type { Kind } from '@pandecta/core/source';
import { ask } from '../api/client.ts';
import { useChanges } from '../act/changes.ts';
import KitButton from '../kit/KitButton.vue';
import KitField from '../kit/KitField.vue';
import KitSelect from '../kit/KitSelect.vue';
import { KIND_CHOICES } from '../sources/index.ts';
import { useDestination } from './destination.ts';

const changes = useChanges();
const destination = useDestination();
const router = useRouter();
const hand = ref<{ type: Kind; title: string }>({ type: 'article-journal', title: '' });

async function add(): Promise<void> {
  const title = hand.value.title.trim();
  if (!title) return;
  const done = await changes.change(() =>
    ask(routes.sources.add, {
      body: { record: { type: hand.value.type, title }, destination: destination.take() },
    }),
  );
  if (!done?.id) return;
  hand.value.title = '';
  await router.push(`/sources?at=${done.id}&edit=1`);
}
</script>

<template>
  <form @submit.prevent="add">
    <h2 class="heading mb-1">By hand</h2>
    <div class="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-2">
      <KitSelect v-model="hand.type" label="Kind" :options="KIND_CHOICES" />
      <KitField v-model="hand.title" label="Title" placeholder="Title" />
    </div>
    <KitButton type="submit" class="mt-2 w-full" :disabled="!hand.title.trim()">Add it and fill it in</KitButton>
  </form>
</template>
