<script setup lang="ts">
/** The archives sources are kept in, in their own order: collections, boxes, folders; what was scanned and what not. */
import { computed } from 'vue';
import { routes } from '@pandecta/contract';
import { ask } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import EmptyState from '../../kit/EmptyState.vue';
import KitButton from '../../kit/KitButton.vue';
import KitNotice from '../../kit/KitNotice.vue';
import ArchiveShelf from './ArchiveShelf.vue';
import { shelvesOf } from './shelves.ts';

const { data, error, isLoading } = useAsked({
  question: () => ({}),
  fetch: (_, signal) => ask(routes.sources.archives, { signal }),
  concerns: (touched) => concerns(touched, ['source']),
});
const archives = computed(() => shelvesOf(data.value?.sources ?? []));
</script>

<template>
  <div class="h-full overflow-auto">
    <div class="mx-auto max-w-[60rem] px-6 py-5">
      <div class="flex flex-wrap items-center gap-3">
        <h1 class="font-serif text-title font-semibold">Archives</h1>
        <span v-if="data" class="text-muted">by collection, box and folder</span>
        <KitButton class="ml-auto" look="quiet" to="/sources">Back to the sources</KitButton>
      </div>
      <KitNotice v-if="error" tone="bad" class="mt-3">{{ error }}</KitNotice>
      <p v-else-if="!data" class="mt-4 text-muted" role="status">{{ isLoading ? 'Reading the archives…' : '' }}</p>
      <EmptyState v-else-if="!archives.length" title="No source is kept in an archive"
        >Sources whose record names an archive, its collection or the place in it (box, folder) are listed
        here.</EmptyState
      >
      <template v-else>
        <KitNotice v-if="data.more" class="mt-3">Only the first 5,000 sources are shown.</KitNotice>
        <ArchiveShelf v-for="a in archives" :key="a.name" :shelf="a" :level="0" />
      </template>
    </div>
  </div>
</template>
