<script setup lang="ts">
/** Files may be dropped anywhere on the page, and anything pasted where no field takes it; where they will go is said before. */
import { useEventListener } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { counted } from '@pandecta/core/wording';
import { isTyping } from '../act/typing.ts';
import { usePlaces } from '../places/store.ts';
import KitButton from '../kit/KitButton.vue';
import ProgressBar from '../kit/ProgressBar.vue';
import { useSession } from '../session/store.ts';
import { useAsk } from '../sources/index.ts';
import { useDestination } from './destination.ts';
import { typed } from './door.ts';
import TableColumns from './TableColumns.vue';
import { droppedFiles, sending, useUpload } from './upload.ts';

const over = ref(false);
const session = useSession();
const places = usePlaces();
const ask = useAsk();
const route = useRoute();
const router = useRouter();
const destination = useDestination();
const { send } = useUpload();
/** The collection one looks at, or else what was chosen. */
const open = computed(() => (route.name === 'sources' ? ask.collection : undefined));
const says = computed(() =>
  open.value ? `filed in ${places.pathOf(open.value)}` : destination.inWords(destination.set),
);
const hasFiles = (e: DragEvent): boolean => session.may('gather') && Boolean(e.dataTransfer?.types.includes('Files'));

useEventListener('dragover', (e: DragEvent) => {
  if (!hasFiles(e)) return;
  e.preventDefault();
  over.value = true;
});
useEventListener('dragleave', (e: DragEvent) => !e.relatedTarget && (over.value = false));
useEventListener('drop', async (e: DragEvent) => {
  if (!hasFiles(e)) return;
  e.preventDefault();
  over.value = false;
  await send(await droppedFiles(e.dataTransfer!), open.value);
});

/** What is pasted where no field takes it is brought in. */
useEventListener('paste', (e: ClipboardEvent) => {
  if (!session.may('gather') || isTyping(e) || !e.clipboardData) return;
  const files = [...e.clipboardData.files];
  const text = e.clipboardData.getData('text/plain').trim();
  if (files.length) void send(files, open.value);
  else if (text) {
    typed.value = typed.value.trim() ? `${typed.value.trimEnd()}\n${text}` : text;
    void router.push('/gather?type');
  } else return;
  e.preventDefault();
});
</script>

<template>
  <TableColumns />
  <div v-if="over" class="pointer-events-none fixed inset-0 z-50 grid place-items-center bg-verdtint/85">
    <p class="rounded-md border-2 border-dashed border-verdigris bg-card px-8 py-5 text-center font-serif text-title">
      Drop to bring them in<span class="block font-sans text-body text-muted">{{ says }}</span>
    </p>
  </div>
  <div
    v-if="sending"
    class="fixed right-4 top-14 z-40 w-72 rounded-md border border-line bg-card px-4 py-2 shadow-lg"
    role="status"
  >
    Sending {{ counted(sending.files, 'file')
    }}<ProgressBar class="my-1" :value="sending.share" label="Sending files" /><KitButton
      look="quiet"
      @click="sending.stop()"
      >Stop</KitButton
    >
  </div>
</template>
