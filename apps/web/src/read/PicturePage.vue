<script setup lang="ts">
/** A picture that is kept beside a source: how a page of the web looked, or the photograph a text was recognised from. */
import { useElementSize } from '@vueuse/core';
import { computed, ref, useTemplateRef, watch } from 'vue';
import KitNotice from '../kit/KitNotice.vue';
import type { PlacedPage } from './viewer/pages.ts';

const props = defineProps<{
  address: string;
  name: string;
  /** Pixels a point; null to fit the width. */
  zoom: number | null;
  /** Room at its left, in pixels. */
  margin: number;
}>();
const emit = defineEmits<{ ready: [] }>();
const container = useTemplateRef<HTMLElement>('container');
const sheet = useTemplateRef<HTMLElement>('sheet');
const failed = ref(false);
/** In points, at 96 pixels to the inch. */
const size = ref<{ width: number; height: number }>();
watch(
  () => props.address,
  () => ((failed.value = false), (size.value = undefined)),
);
const { width: room } = useElementSize(container);
const scale = computed(() =>
  size.value ? (props.zoom ?? Math.min(96 / 72, Math.max(80, room.value - props.margin - 28) / size.value.width)) : 1,
);
const page = computed((): PlacedPage => {
  const { width, height } = size.value ?? { width: 1, height: 1 };
  const [left, top] = [sheet.value?.offsetLeft ?? 0, sheet.value?.offsetTop ?? 0];
  return { number: 1, left, top, width: width * scale.value, height: height * scale.value, size: { width, height } };
});
function measure(event: Event): void {
  const { naturalWidth, naturalHeight } = event.target as HTMLImageElement;
  size.value = { width: naturalWidth * 0.75, height: naturalHeight * 0.75 };
  emit('ready');
}

defineExpose({
  go: (_: number, y = 0) => container.value?.scrollTo({ top: Math.max(0, page.value.top + y - 120) }),
  scale,
  placed: computed(() => [page.value]),
  element: container,
});
</script>

<template>
  <div ref="container" class="relative overflow-auto py-3.5" tabindex="0" role="document" aria-label="Picture">
    <KitNotice v-if="failed" tone="plain" class="m-6"
      >This browser cannot show this kind of picture. Download the file from the column on the right.</KitNotice
    >
    <div
      v-else
      ref="sheet"
      class="relative bg-white shadow"
      :style="size && { marginLeft: `${margin}px`, width: `${page.width}px`, height: `${page.height}px` }"
      data-page="1"
    >
      <img class="block w-full" :src="address" :alt="name" draggable="false" @load="measure" @error="failed = true" />
      <div v-if="size" class="pointer-events-none absolute inset-0"><slot :page="page" :scale="scale" /></div>
    </div>
  </div>
</template>
