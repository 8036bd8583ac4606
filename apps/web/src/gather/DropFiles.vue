<script setup lang="ts">
/** Files may be dropped anywhere on the page; where they will go is said before they are let go. */
import { useEventListener } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { useChanges } from '../act/changes.ts';
import { usePlaces } from '../places/store.ts';
import ProgressBar from '../kit/ProgressBar.vue';
import { counted } from '../kit/words.ts';
import { useSession } from '../session/store.ts';
import { useAsk } from '../sources/index.ts';
import { useJobs } from './jobs.ts';
import { destination } from './destination.ts';
import { droppedFiles, sending, upload } from './upload.ts';

const over = ref(false);
const session = useSession();
const changes = useChanges();
const places = usePlaces();
const ask = useAsk();
const jobs = useJobs();
const router = useRouter();
const target = computed(() => ask.collection ?? destination.value);
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
  const files = await droppedFiles(e.dataTransfer!);
  if (!files.length) return;
  try {
    const { importId } = await upload(files, target.value);
    await jobs.look();
    await router.push(`/gather/${importId}`);
  } catch (error) {
    changes.tell((error as Error).message, null, true);
  }
});
</script>

<template>
  <div v-if="over" class="pointer-events-none fixed inset-0 z-50 grid place-items-center bg-verdtint/85">
    <p class="rounded-md border-2 border-dashed border-verdigris bg-card px-8 py-5 text-center font-serif text-title">
      Let go to bring them in<span class="block font-sans text-body text-muted">{{
        target ? `filed in ${places.pathOf(target)}` : 'in no collection yet'
      }}</span>
    </p>
  </div>
  <div
    v-if="sending"
    class="fixed right-4 top-14 z-40 w-72 rounded-md border border-line bg-card px-4 py-2 shadow-lg"
    role="status"
  >
    Sending {{ counted(sending.files, 'file')
    }}<ProgressBar class="mt-1" :value="sending.share" label="Sending files" />
  </div>
</template>
