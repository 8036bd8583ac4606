<script setup lang="ts">
/** Keeps what is asked now, under a name; or, where one set out from a saved search, puts it in its place. */
import { computed, ref } from 'vue';
import type { Ask } from '@pandecta/contract';
import KitButton from '../../kit/KitButton.vue';
import KitPopover from '../../kit/KitPopover.vue';
import { useSession } from '../../session/store.ts';
import { useAsk } from '../ask.ts';
import SavedForm, { saidOf, type SavedWords } from './SavedForm.vue';
import { useSaved } from './store.ts';

const ask = useAsk();
const saved = useSaved();
const session = useSession();
const words = ref<SavedWords>(empty());

function empty(): SavedWords {
  return { name: '', describes: '', keywords: '', folder: null, shared: session.may('arrange') };
}
const asked = computed<Ask>(() => {
  const { typing: _typing, ...rest } = ask.body as Ask;
  return rest;
});
const from = computed(() => (ask.saved ? saved.byId.get(ask.saved) : undefined));

async function keep(close: () => void): Promise<void> {
  if (!words.value.name.trim()) return;
  const done = await saved.keep({ ...saidOf(words.value), ask: asked.value });
  if (!done?.id) return;
  close();
  ask.open({ id: done.id, ask: asked.value });
}
async function replace(close: () => void): Promise<void> {
  await saved.edit(from.value!.id, { ask: asked.value });
  close();
}
</script>

<template>
  <KitPopover v-if="ask.isNarrowed" class="!py-[7px]" at="bottom-end" focus @open="words = empty()"
    ><template #button>Keep this search</template
    ><template #default="{ close }">
      <form class="w-80 p-3" @submit.prevent="keep(close)">
        <SavedForm v-model="words" />
        <div class="mt-3 flex justify-end gap-2">
          <KitButton v-if="from" :title="`“${from.name}” then asks this`" @click="replace(close)"
            >Put in place of “{{ from.name }}”</KitButton
          >
          <KitButton look="main" type="submit" :disabled="!words.name.trim()">Keep</KitButton>
        </div>
      </form></template
    ></KitPopover
  >
</template>
