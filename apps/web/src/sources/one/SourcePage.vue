<script setup lang="ts">
/** A source on a page of its own: all there is of it, to be read, sent as an address, printed. */
import { computed, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { routes } from '@pandecta/contract';
import { KINDS, whereOf, whenOf, whoOf, withoutMarkup } from '@pandecta/core/source';
import { counted } from '@pandecta/core/wording';
import { ask } from '../../api/client.ts';
import { useCiting } from '../../citing/store.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import KitButton from '../../kit/KitButton.vue';
import KitNotice from '../../kit/KitNotice.vue';
import StampMark from '../../kit/StampMark.vue';
import { useSession } from '../../session/store.ts';
import { useAsk } from '../ask.ts';
import { useBatch } from '../batch.ts';
import FileTo from '../collections/FileTo.vue';
import HistoryList from '../HistoryList.vue';
import RecordEditor from '../RecordEditor.vue';
import StarButton from '../StarButton.vue';
import CitationBlock from './CitationBlock.vue';
import FilesBlock from './FilesBlock.vue';
import GlossesBlock from './GlossesBlock.vue';
import LikeBlock from './LikeBlock.vue';
import ListedBlock from './ListedBlock.vue';
import MarksBlock from './MarksBlock.vue';
import NotesBlock from './NotesBlock.vue';
import PlacesBlock from './PlacesBlock.vue';
import RecordBlock from './RecordBlock.vue';
import RelationsBlock from './RelationsBlock.vue';
import VersionsBlock from './VersionsBlock.vue';

const route = useRoute();
const router = useRouter();
const session = useSession();
const citing = useCiting();
const batch = useBatch();
const list = useAsk();
const editing = ref(false);
const filing = ref(false);
const id = computed(() => String(route.params.source));
watch(id, () => (editing.value = false));
const { data: source, error } = useAsked({
  question: () => id.value,
  fetch: (one, signal) => ask(routes.sources.one, { source: one, signal }),
  concerns: (touched, one) => concerns(touched, ['source'], one) || concerns(touched, ['collection', 'tag', 'label']),
});
const title = computed(() =>
  withoutMarkup(source.value?.record.title ?? source.value?.record['title-short'] ?? 'Untitled'),
);
const line = computed(() => {
  const record = source.value?.record;
  return record ? [whoOf(record), whereOf(record), whenOf(record)].filter(Boolean).join(' · ') : '';
});
const marks = computed(() => source.value?.files.reduce((n, f) => n + f.marks, 0) ?? 0);
const open = (page?: number, file?: string): void =>
  void router.push(
    `/read/${id.value}/${file ?? source.value!.files.find((f) => !f.address)!.id}${page ? `?page=${page}` : ''}`,
  );
const print = (): void => window.print();
</script>

<template>
  <div class="h-full overflow-auto print:overflow-visible">
    <div class="mx-auto max-w-[72rem] px-6 py-5">
      <KitNotice v-if="error" tone="bad">{{ error }}</KitNotice>
      <p v-else-if="!source" class="text-muted">Fetching the record…</p>
      <template v-else>
        <div class="flex items-start gap-3">
          <StampMark :kind="source.record.type" class="mt-1.5" />
          <div class="min-w-0 flex-1">
            <h1 class="font-serif text-[1.5rem] font-semibold leading-tight">{{ title }}</h1>
            <p class="mt-1 text-muted">{{ line }}</p>
          </div>
          <KitButton look="quiet" class="print:hidden" :to="list.address">Back to the sources</KitButton>
        </div>
        <p v-if="source.presence === 'bin'" class="mt-2 text-ochre">It is in the bin.</p>
        <div class="mt-3 flex flex-wrap gap-1.5 print:hidden">
          <KitButton v-if="source.files.some((f) => /pdf|html/.test(f.mediaType))" look="main" @click="open()"
            >Read</KitButton
          >
          <KitButton v-if="session.may('edit') && source.presence === 'live'" @click="editing = !editing">{{
            editing ? 'Done' : 'Edit record'
          }}</KitButton>
          <KitButton @click="citing.copyCited({ ids: [id] }, 'citation')">Cite</KitButton>
          <StarButton :chosen="{ ids: [id] }" :starred="source.starred" />
          <KitButton @click="print">Print</KitButton>
          <KitButton :to="`/sources?at=${id}`">Show in the list</KitButton>
          <KitButton
            v-if="session.may('edit') && source.presence === 'bin'"
            look="main"
            @click="batch.restore({ ids: [id] })"
            >Restore</KitButton
          >
          <KitButton v-else-if="session.may('edit')" @click="batch.toBin({ ids: [id] })">To the bin</KitButton>
        </div>
        <div class="mt-5 grid grid-cols-1 gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1.9fr)_minmax(0,1fr)]">
          <div class="flex min-w-0 flex-col gap-6">
            <CitationBlock :id="id" />
            <section aria-label="Record">
              <RecordEditor v-if="editing" :source="source" @close="editing = false" />
              <template v-else>
                <h2 class="heading mb-1.5">Record</h2>
                <RecordBlock :source="source" />
              </template>
            </section>
            <NotesBlock :id="id" />
            <GlossesBlock :id="id" heading="h2" />
            <section>
              <h2 class="heading mb-1">Relations</h2>
              <RelationsBlock :id="id" :law="KINDS[source.record.type].group === 'law'" />
              <ListedBlock v-if="source.files.some((f) => f.state === 'text')" :id="id" />
            </section>
            <section aria-label="More like this" class="print:hidden">
              <h2 class="heading mb-1">More like this</h2>
              <LikeBlock :id="id" />
            </section>
            <section v-if="marks">
              <h2 class="heading mb-1">{{ counted(marks, 'mark') }}</h2>
              <MarksBlock :source="source" />
            </section>
          </div>
          <div class="flex min-w-0 flex-col gap-6">
            <FilesBlock :source="source" @open="open" />
            <PlacesBlock :id="id" :source="source" @file="filing = true" />
            <section class="print:hidden">
              <h2 class="heading mb-1">Earlier versions</h2>
              <VersionsBlock :source="source" />
            </section>
            <section class="print:hidden">
              <h2 class="heading mb-1">History</h2>
              <HistoryList :source="id" />
            </section>
          </div>
        </div>
      </template>
    </div>
    <FileTo v-model:open="filing" :chosen="{ ids: [id] }" :count="1" />
  </div>
</template>
