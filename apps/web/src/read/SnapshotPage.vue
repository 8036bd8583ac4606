<script setup lang="ts">
/**
 * A page of the web as it was kept: shown by itself, with nothing of it run (the frame may not, whatever it holds), and what
 * was found in it lit.
 */
import { nextTick, ref, useTemplateRef, watch } from 'vue';
import KitNotice from '../kit/KitNotice.vue';
import { lightWords, showHit } from './light.ts';

const props = defineProps<{ address: string; name: string; words: string[]; hitAt: number }>();
const frame = useTemplateRef<HTMLIFrameElement>('frame');
const html = ref('');
const error = ref('');
watch(
  () => props.address,
  async (address) => {
    html.value = '';
    error.value = '';
    const reply = await fetch(address).catch(() => undefined);
    if (address !== props.address) return;
    if (reply?.ok) html.value = await reply.text();
    else error.value = 'The page could not be fetched; open it again to try once more.';
  },
  { immediate: true },
);
async function light(): Promise<void> {
  await nextTick();
  const page = frame.value?.contentDocument;
  if (!page?.body) return;
  lightWords(page, props.words);
  showHit(page, props.hitAt);
}
watch(() => props.words, light);
watch(
  () => props.hitAt,
  (at) => frame.value?.contentDocument && showHit(frame.value.contentDocument, at),
);
</script>

<template>
  <div>
    <KitNotice v-if="error" tone="bad" class="m-6">{{ error }}</KitNotice>
    <iframe
      v-else
      ref="frame"
      class="h-full w-full border-0 bg-white"
      sandbox="allow-same-origin"
      :srcdoc="html"
      :title="name"
      @load="light"
    />
  </div>
</template>
