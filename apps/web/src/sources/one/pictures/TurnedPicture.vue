<script setup lang="ts">
/** A picture as it will stand on its page: turned, and cut where it is. */
import { ref, useTemplateRef, watchEffect } from 'vue';
import type { Crop } from '@pandecta/contract';
import type { Turned } from './pages.ts';

const props = defineProps<{
  file: File;
  turn: Turned;
  crop?: Crop | undefined;
  /** In pixels, the longer side it is drawn with. */
  size: number;
}>();
const canvas = useTemplateRef<HTMLCanvasElement>('canvas');
const failed = ref(false);
const EMPTY: Crop = { left: 0, top: 0, width: 1, height: 1 };

watchEffect(async () => {
  const { file, turn, crop, size } = props;
  const to = canvas.value;
  if (!to) return;
  try {
    const picture = await createImageBitmap(file);
    failed.value = false;
    const lies = turn === 90 || turn === 270;
    const [width, height] = lies ? [picture.height, picture.width] : [picture.width, picture.height];
    const { left, top, width: w, height: h } = crop ?? EMPTY;
    const scale = size / Math.max(width * w, height * h);
    to.width = Math.max(1, Math.round(width * w * scale));
    to.height = Math.max(1, Math.round(height * h * scale));
    const pen = to.getContext('2d')!;
    pen.translate((width / 2 - left * width) * scale, (height / 2 - top * height) * scale);
    pen.rotate((turn * Math.PI) / 180);
    pen.scale(scale, scale);
    pen.drawImage(picture, -picture.width / 2, -picture.height / 2);
    picture.close();
  } catch {
    // A format that browsers do not draw (TIFF, HEIC): the server reads it.
    failed.value = true;
  }
});
</script>

<template>
  <span class="grid place-items-center">
    <canvas v-show="!failed" ref="canvas" class="block max-h-full max-w-full" aria-hidden="true" />
    <span v-if="failed" class="p-2 text-center text-label text-muted">No preview of this format</span>
  </span>
</template>
