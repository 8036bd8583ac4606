<script setup lang="ts">
/** The marks in a source's documents, in the order of its pages, each leading there. */
import { computed } from 'vue';
import { placeWritten } from '@pandecta/core/page-numbers';
import { routes, type SourceDetail } from '@pandecta/contract';
import { ask } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';

const props = defineProps<{ source: SourceDetail }>();
const { data: documents } = useAsked({
  question: () => ({ source: props.source.id, files: props.source.files.filter((f) => f.marks).map((f) => f.id) }),
  fetch: ({ source, files }, signal) =>
    Promise.all(files.map((file) => ask(routes.marks.document, { source, file, signal }))),
  concerns: (touched, { source }) => concerns(touched, ['source'], source) || concerns(touched, ['mark']),
});
const marks = computed(() =>
  (documents.value ?? []).flatMap((d) =>
    d.marks
      .map((m) => ({ ...m, sense: d.senses.find((s) => s.id === m.sense)?.name ?? '', file: d.fileId }))
      .sort((a, b) => a.page - b.page),
  ),
);
</script>

<template>
  <ul>
    <li v-for="m in marks" :key="m.id" class="border-b border-line py-1.5">
      <p class="flex items-baseline gap-2">
        <RouterLink
          class="shrink-0 font-mono text-fine text-verdigris hover:underline"
          :to="`/read/${source.id}/${m.file}?page=${m.page}`"
          >{{ placeWritten(m.cited) }}</RouterLink><span class="shrink-0 text-fine text-muted">{{ m.sense }}</span
        ><q class="min-w-0 font-serif">{{ m.quote.exact }}</q>
      </p>
      <p v-if="m.gloss" class="ml-12 text-fine">{{ m.gloss }}</p>
    </li>
  </ul>
</template>
