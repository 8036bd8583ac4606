<script setup lang="ts">
/** Gather: say where to, bring files in, see what became of them. */
import { computed, onMounted, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { routes, type Touched } from '@pandecta/contract';
import { ALL_KINDS, KINDS, type Kind } from '@pandecta/core/source';
import { ask } from '../api/client.ts';
import { useChanges } from '../act/changes.ts';
import { useAsked } from '../data/asked.ts';
import { concerns } from '../data/live.ts';
import EmptyState from '../kit/EmptyState.vue';
import KitButton from '../kit/KitButton.vue';
import KitField from '../kit/KitField.vue';
import KitNotice from '../kit/KitNotice.vue';
import KitSelect from '../kit/KitSelect.vue';
import TimeText from '../kit/TimeText.vue';
import { usePlaces } from '../places/store.ts';
import { useSession } from '../session/store.ts';
import { destination } from './destination.ts';
import ImportReportCard from './ImportReportCard.vue';
import { useJobs } from './jobs.ts';
import { upload } from './upload.ts';

const route = useRoute();
const router = useRouter();
const places = usePlaces();
const changes = useChanges();
const jobs = useJobs();
const session = useSession();
const picker = ref<HTMLInputElement>();
const hand = ref<{ type: Kind; title: string }>({ type: 'article-journal', title: '' });
/** A report says whether its import stands. */
const isTakenBack = (touched: Touched): boolean => concerns(touched, ['source']);
const { value: list } = useAsked({
  question: () => 'imports',
  fetch: (_, signal) => ask(routes.gather.imports, { signal }),
  concerns: (touched) => concerns(touched, ['job']) || isTakenBack(touched),
});
const imports = computed(() => list.value?.imports ?? []);
/** The report one asked for, or the newest. */
const openId = computed(() => String(route.params.import || imports.value[0]?.id || ''));
/** Its own job's line tells how far it is; the report is looked at again when that has ended. */
const running = computed(() => jobs.running.some((j) => j.importId === openId.value));
const { value: report, trouble } = useAsked({
  question: () => (openId.value ? { id: openId.value, running: running.value } : null),
  fetch: ({ id }, signal) => ask(routes.gather.report, { import: id, signal }),
  concerns: isTakenBack,
});
const open = computed(
  () =>
    report.value && { ...report.value, job: jobs.list.find((j) => j.id === report.value!.job.id) ?? report.value.job },
);
const kinds = ALL_KINDS.map((k) => ({ value: k, name: KINDS[k].name })).sort((a, b) => a.name.localeCompare(b.name));
const targets = computed(() => [
  { value: undefined, name: 'In no collection yet' },
  ...places.flat.map((c) => ({ value: c.id, name: c.path })),
]);

onMounted(() => {
  if (typeof route.query.into === 'string') destination.value = route.query.into;
});

async function send(files: File[]): Promise<void> {
  if (!files.length) return;
  try {
    const { importId } = await upload(files, destination.value);
    await jobs.look();
    await router.push(`/gather/${importId}`);
  } catch (error) {
    changes.tell((error as Error).message, null, true);
  }
}

function picked(event: Event): void {
  const input = event.target as HTMLInputElement;
  void send([...(input.files ?? [])]);
  input.value = '';
}

async function byHand(): Promise<void> {
  const title = hand.value.title.trim();
  if (!title) return;
  const done = await changes.change(() =>
    ask(routes.sources.add, {
      body: {
        record: { type: hand.value.type, title },
        ...(destination.value && { collection: destination.value }),
      },
    }),
  );
  if (done?.id) {
    hand.value.title = '';
    await router.push(`/sources?at=${done.id}`);
  }
}
</script>

<template>
  <div class="flex h-full">
    <aside class="pane w-[22rem] shrink-0 border-r border-line px-5 py-5" aria-label="Bring in sources">
      <template v-if="session.may('gather')">
        <h1 class="font-serif text-title font-semibold">Bring in sources</h1>
        <KitSelect v-model="destination" class="mt-4" label="Where they go" above :options="targets" />
        <KitButton
          look="bare"
          class="mt-4 w-full rounded-md border-2 border-dashed border-edge bg-card px-4 py-6 text-center hover:border-verdigris"
          @click="picker?.click()"
        >
          <span class="block font-serif text-read">Drop files anywhere, or choose them</span>
          <span class="text-fine text-muted"
            >PDF, RIS, BibTeX, BibLaTeX, CSL-JSON, in any mix; the content tells the format</span
          >
        </KitButton>
        <!-- eslint-disable-next-line vue/no-restricted-html-elements -- the browser's own way to choose files -->
        <input ref="picker" type="file" multiple class="hidden" aria-label="Choose files" @change="picked" />
        <form class="mt-6" @submit.prevent="byHand">
          <h2 class="heading">By hand</h2>
          <KitSelect v-model="hand.type" class="mt-1" label="Kind" :options="kinds" />
          <KitField v-model="hand.title" class="mt-1.5" placeholder="Title" label="Title" />
          <KitButton class="mt-1.5" type="submit" :disabled="!hand.title.trim()">Add and fill in</KitButton>
        </form>
      </template>
      <p v-else class="text-muted">
        As a reader you see what was brought in; contributors and stewards bring in sources.
      </p>
      <h2 class="heading mt-7">Brought in before</h2>
      <ul class="mt-1">
        <li v-for="i in imports" :key="i.id">
          <RouterLink
            :to="`/gather/${i.id}`"
            class="block rounded px-2 py-1.5 hover:bg-card"
            :class="i.id === openId && 'bg-verdtint'"
          >
            <span class="block truncate font-medium">{{ i.title }}</span>
            <span class="text-fine text-muted"><TimeText :at="i.at" /> · {{ i.job.says || i.job.state }}</span>
          </RouterLink>
        </li>
        <li v-if="!imports.length" class="text-muted">Nothing yet.</li>
      </ul>
    </aside>
    <section class="min-w-0 flex-1 overflow-auto px-8 py-6" aria-label="Report">
      <KitNotice v-if="trouble" tone="bad">{{ trouble }}</KitNotice>
      <ImportReportCard v-else-if="open" :report="open" />
      <div v-else class="grid h-full place-items-center">
        <EmptyState
          >What was brought in, and what became of it, stands here. Choose one on the left, or drop files.</EmptyState
        >
      </div>
    </section>
  </div>
</template>
