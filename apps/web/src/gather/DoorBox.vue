<script setup lang="ts">
/** The one box for whatever is typed or pasted: it says what it sees while one types, and where limits lie before the work. */
import { refDebounced } from '@vueuse/core';
import { computed, ref, useTemplateRef } from 'vue';
import { useRouter } from 'vue-router';
import { MOST_FILE_BYTES, MOST_FILES, routes } from '@pandecta/contract';
import { MOST_TYPED, seenInWords, takeApart } from '@pandecta/core/door';
import { formatNumber } from '@pandecta/core/wording';
import { ask } from '../api/client.ts';
import { useChanges } from '../act/changes.ts';
import KitButton from '../kit/KitButton.vue';
import KitFile from '../kit/KitFile.vue';
import KitField from '../kit/KitField.vue';
import { useDestination } from './destination.ts';
import { typed } from './door.ts';
import { useJobs } from './jobs.ts';
import { useUpload } from './upload.ts';

const destination = useDestination();
const changes = useChanges();
const jobs = useJobs();
const router = useRouter();
const { send } = useUpload();
const field = useTemplateRef<{ focus(): void }>('field');
const picker = useTemplateRef<InstanceType<typeof KitFile>>('picker');
const busy = ref(false);
const settled = refDebounced(typed, 120);
const tooLong = computed(() => typed.value.length > MOST_TYPED);
const seen = computed(() => (tooLong.value ? [] : seenInWords(takeApart(settled.value))));

async function bring(): Promise<void> {
  const text = typed.value;
  if (!text.trim() || busy.value || tooLong.value) return;
  busy.value = true;
  try {
    await ask(routes.gather.typed, { body: { text, destination: destination.take() } });
    // What one typed meanwhile stays.
    if (typed.value === text) typed.value = '';
    await jobs.look();
    await router.push('/gather');
  } catch (error) {
    changes.tell((error as Error).message, null, true);
  } finally {
    busy.value = false;
  }
}

defineExpose({ focus: (): void => field.value?.focus() });
</script>

<template>
  <form @submit.prevent="bring">
    <KitField
      ref="field"
      v-model="typed"
      label="Identifiers, references, links"
      placeholder="A DOI, an ISBN, a link, a reference or a whole list"
      :lines="4"
      class="font-mono"
      spellcheck="false"
      @keydown.ctrl.enter.prevent="bring"
      @keydown.meta.enter.prevent="bring"
    />
    <p class="mt-1.5 min-h-9 text-fine text-muted" aria-live="polite">
      <template v-if="tooLong"
        ><span class="text-madder"
          >More than {{ formatNumber(MOST_TYPED) }} characters: save it as a file and drop that.</span
        ></template
      >
      <template v-else-if="seen.length"
        >Seen:
        <template v-for="(s, i) in seen" :key="s.says + s.wrong"
          ><template v-if="i">, </template><b class="text-verdigris">{{ s.says }}</b
          ><span v-if="s.wrong" class="text-ochre"> ({{ s.wrong }})</span></template
        >.
      </template>
      <template v-else
        >Files and folders may be dropped anywhere: PDF, pictures of pages, files of references, tables, DOCX, ODT,
        saved pages, zip; up to {{ formatNumber(MOST_FILES) }} files of {{ MOST_FILE_BYTES / 1024 ** 2 }} MB.</template
      >
    </p>
    <slot />
    <div class="mt-3 flex gap-2">
      <KitButton look="main" type="submit" class="flex-1" :disabled="!typed.trim() || busy || tooLong"
        >Look up and bring in</KitButton
      >
      <KitButton @click="picker?.ask()">Files…</KitButton>
    </div>
    <KitFile ref="picker" multiple label="Choose files" @chosen="send" />
  </form>
</template>
