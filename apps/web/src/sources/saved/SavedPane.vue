<script setup lang="ts">
/** Saved searches in their folders, each with how many sources it finds now. */
import { FolderPlus, ListChecks } from '@lucide/vue';
import { computed, nextTick, ref, useTemplateRef } from 'vue';
import KitButton from '../../kit/KitButton.vue';
import KitDialog from '../../kit/KitDialog.vue';
import KitField from '../../kit/KitField.vue';
import type { SavedSearch } from '@pandecta/contract';
import SavedForm, { saidOf, type SavedWords } from './SavedForm.vue';
import SavedFolderBranch from './SavedFolderBranch.vue';
import { useSaved } from './store.ts';

const saved = useSaved();
const adding = ref(false);
const name = ref('');
const typed = ref('');
const input = useTemplateRef<InstanceType<typeof KitField>>('input');
const editing = ref<SavedSearch | null>(null);
const words = ref<SavedWords>({ name: '', describes: '', keywords: '', folder: null, shared: false });

/** With so many, one looks for a search by its name. */
const MANY = 12;
const tree = computed(() => saved.tree(typed.value));
const all = computed(() => saved.list?.searches.length ?? 0);
const isOpen = computed({ get: () => Boolean(editing.value), set: (open) => !open && (editing.value = null) });

async function add(): Promise<void> {
  adding.value = true;
  name.value = '';
  await nextTick();
  input.value?.focus();
}
async function finish(): Promise<void> {
  if (!adding.value) return;
  adding.value = false;
  if (name.value.trim()) await saved.makeFolder(name.value.trim(), null, false);
}
function edit(search: SavedSearch): void {
  const { name: called, describes, keywords, folder, shared } = search;
  words.value = { name: called, describes, keywords: keywords.join(', '), folder, shared };
  editing.value = search;
}
async function save(): Promise<void> {
  await saved.edit(editing.value!.id, saidOf(words.value));
  editing.value = null;
}
</script>

<template>
  <section aria-label="Saved searches">
    <div class="flex items-center justify-between">
      <h2 class="heading">Saved searches</h2>
      <span class="flex">
        <KitButton v-if="all" look="icon" name="All saved searches" to="/sources/saved"
          ><ListChecks :size="14"
        /></KitButton>
        <KitButton look="icon" name="New folder for searches" @click="add"><FolderPlus :size="14" /></KitButton>
      </span>
    </div>
    <KitField v-if="all > MANY" v-model="typed" class="my-1" label="Find a saved search" placeholder="Find" />
    <form v-if="adding" class="my-1" @submit.prevent="finish">
      <KitField
        ref="input"
        v-model="name"
        placeholder="Name of the folder"
        label="Name of the new folder"
        @keydown.esc.stop="adding = false"
        @blur="finish"
      />
    </form>
    <SavedFolderBranch :branch="tree" :depth="0" @edit="edit" />
    <p v-if="saved.list && !all" class="py-1 text-muted">
      Save a question you ask often: ask it, then “Keep this search”.
    </p>
    <p v-else-if="typed && !tree.searches.length && !tree.folders.length" class="py-1 text-muted">No matches.</p>
    <KitDialog v-model:open="isOpen" :title="`The saved search “${editing?.name}”`" at="side">
      <form class="mt-4" @submit.prevent="save">
        <SavedForm v-model="words" />
        <p v-if="editing" class="mt-3 text-fine text-muted">Made by {{ editing.madeBy }}</p>
        <div class="mt-3 flex justify-end">
          <KitButton look="main" type="submit" :disabled="!words.name.trim()">Save</KitButton>
        </div>
      </form>
    </KitDialog>
  </section>
</template>
