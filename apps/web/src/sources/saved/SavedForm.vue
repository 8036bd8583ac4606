<script lang="ts">
/** What is said of a saved search besides what it asks. */
export interface SavedWords {
  name: string;
  describes: string;
  /** Separated by commas. */
  keywords: string;
  folder: string | null;
  shared: boolean;
}

/** The same as the server has it. */
export const saidOf = ({ name, keywords, ...rest }: SavedWords) => ({
  ...rest,
  name: name.trim(),
  keywords: keywords
    .split(',')
    .map((k) => k.trim())
    .filter(Boolean),
});
</script>

<script setup lang="ts">
import { computed } from 'vue';
import KitCheck from '../../kit/KitCheck.vue';
import KitField from '../../kit/KitField.vue';
import KitSelect from '../../kit/KitSelect.vue';
import { useSession } from '../../session/store.ts';
import { useSaved } from './store.ts';

const words = defineModel<SavedWords>({ required: true });
const saved = useSaved();
const session = useSession();
const folders = computed(() => [
  { value: '', name: 'In no folder' },
  ...saved.folders.map((f) => ({ value: f.id, name: f.name })),
]);
const part = <K extends keyof SavedWords>(key: K) =>
  computed<SavedWords[K]>({ get: () => words.value[key], set: (v) => (words.value = { ...words.value, [key]: v }) });
const name = part('name');
const describes = part('describes');
const keywords = part('keywords');
const shared = part('shared');
const folder = computed({
  get: () => words.value.folder ?? '',
  set: (v) => (words.value = { ...words.value, folder: v || null }),
});
</script>

<template>
  <div class="flex flex-col gap-2">
    <KitField v-model="name" above label="Name" />
    <KitField v-model="describes" above label="What it is for" :lines="2" />
    <KitField v-model="keywords" above label="Keywords, separated by commas" />
    <KitSelect v-model="folder" above label="Folder" :options="folders" />
    <label v-if="session.may('arrange')" class="flex items-baseline gap-2"
      ><KitCheck class="translate-y-0.5" :checked="shared" label="Seen by all members" @check="shared = !shared" />
      <span>Seen by all members<span class="block text-fine text-muted">Otherwise by you alone</span></span></label
    >
  </div>
</template>
