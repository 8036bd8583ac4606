<script setup lang="ts">
/** Has the text of a scan recognised anew: in which languages, and what becomes of lines that were corrected. */
import { ref, watch } from 'vue';
import { routes, type RecognitionLanguages } from '@pandecta/contract';
import { counted } from '@pandecta/core/wording';
import { useChanges } from '../../act/changes.ts';
import { ask } from '../../api/client.ts';
import KitButton from '../../kit/KitButton.vue';
import KitChecks from '../../kit/KitChecks.vue';
import KitDialog from '../../kit/KitDialog.vue';
import KitSelect from '../../kit/KitSelect.vue';

const props = defineProps<{
  source: string;
  file: string;
  /** On how many pages lines were corrected. */
  corrected: number;
}>();
const open = defineModel<boolean>('open', { required: true });
const { attempt, change } = useChanges();
const languages = ref<RecognitionLanguages | null>(null);
const chosen = ref<string[]>([]);
const becomes = ref<'keep' | 'anew'>('keep');
watch(open, async (isOpen) => {
  if (!isOpen) return;
  becomes.value = 'keep';
  languages.value = (await attempt(() => ask(routes.files.languages, {}))) ?? null;
  chosen.value = languages.value?.chosen ?? [];
});
const ways = [
  { value: 'keep' as const, name: 'Leave those pages as they are' },
  { value: 'anew' as const, name: 'Recognise all pages anew' },
];
async function start(): Promise<void> {
  const { source, file } = props;
  const body = { languages: chosen.value, ...(props.corrected && { corrected: becomes.value }) };
  if (await change(() => ask(routes.files.recogniseAnew, { source, file, body }))) open.value = false;
}
</script>

<template>
  <KitDialog v-model:open="open" at="side" title="Recognise the text anew">
    <form class="mt-3 grid gap-4" @submit.prevent="start">
      <KitChecks
        v-if="languages"
        v-model="chosen"
        legend="Languages of the text"
        :options="languages.installed.map((l) => ({ value: l.code, name: l.name }))"
      >
        <p class="text-fine text-muted">
          Another is installed on the server with one command, German for example:
          <code class="font-mono">apt-get install tesseract-ocr-deu</code>
        </p>
      </KitChecks>
      <div v-if="corrected" class="grid gap-1.5">
        <h3 class="heading">Lines of {{ counted(corrected, 'page') }} were corrected</h3>
        <KitSelect v-model="becomes" label="What becomes of corrected lines" :options="ways" />
        <p class="text-fine text-muted">
          Recognised anew, the corrections stay with the file as it is now; undo brings it back.
        </p>
      </div>
      <p class="text-fine text-muted">
        Pages are put upright and level first. It takes some seconds a page; the result takes the place of this file,
        with its marks.
      </p>
      <div class="flex justify-end gap-2">
        <KitButton look="quiet" @click="open = false">Cancel</KitButton>
        <KitButton look="main" type="submit" :disabled="!chosen.length">Recognise anew</KitButton>
      </div>
    </form>
  </KitDialog>
</template>
