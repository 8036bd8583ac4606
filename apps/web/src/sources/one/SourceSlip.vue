<script setup lang="ts">
/** The slip: the catalogue card of the chosen source, with its citation as it will print. */
import { X } from '@lucide/vue';
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { routes } from '@pandecta/contract';
import {
  dateShort,
  KINDS,
  lastDayOf,
  likeThis,
  nameSpoken,
  partOf,
  partsOfKind,
  variableLabel,
  type SourceRecord,
} from '@pandecta/core/source';
import { counted, formatNumber } from '@pandecta/core/wording';
import { useChanges } from '../../act/changes.ts';
import { ask } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import { useCiting } from '../../citing/store.ts';
import KitButton from '../../kit/KitButton.vue';
import KitMenu, { type MenuEntry } from '../../kit/KitMenu.vue';
import KitNotice from '../../kit/KitNotice.vue';
import { useSession } from '../../session/store.ts';
import { AFTER_TYPING_MS } from '../ask.ts';
import { useBatch } from '../batch.ts';
import HistoryList from '../HistoryList.vue';
import CitationBlock from './CitationBlock.vue';
import FilesBlock from './FilesBlock.vue';
import GlossesBlock from './GlossesBlock.vue';
import PlacesBlock from './PlacesBlock.vue';
import { useLedger } from '../ledger/store.ts';
import RecordEditor from '../RecordEditor.vue';
import SourceFindings from '../SourceFindings.vue';
import StarButton from '../StarButton.vue';

const props = defineProps<{
  id: string;
  /** There is little room: it can be folded to one line again. */
  folds?: boolean;
}>();
const emit = defineEmits<{ open: [page?: number, file?: string]; file: []; cite: []; fold: [] }>();
const citing = useCiting();
const batch = useBatch();
const ledger = useLedger();
const session = useSession();
const changes = useChanges();
const router = useRouter();
const tagging = ref(false);
watch(
  () => props.id,
  () => (tagging.value = false),
);
const mode = defineModel<'card' | 'edit' | 'history'>('mode', { default: 'card' });

// While one types, each letter brings another first line: its record waits for a pause, and no other is shown for it.
const pause = (): number => (ledger.follows ? AFTER_TYPING_MS : 0);
const { data: source, error } = useAsked({
  question: () => props.id,
  fetch: (id, signal) => ask(routes.sources.one, { source: id, signal }),
  concerns: (touched, id) => concerns(touched, ['source'], id) || concerns(touched, ['collection', 'tag', 'label']),
  pause,
});
const unversion = (other: string): Promise<unknown> =>
  changes.change(() => ask(routes.check.relate, { body: { sources: [props.id, other], as: 'version of', present: false } })); // prettier-ignore

const originOf = ({ cameFrom, addedBy }: { cameFrom: string | null; addedBy: string }): string =>
  cameFrom ?? `${addedBy}, by hand`;
const lines = computed(() => {
  const s = source.value;
  if (!s) return [];
  const r = s.record;
  const out: [string, string, boolean?][] = [['Kind', KINDS[r.type].name]];
  if (r['container-title'])
    out.push([
      'Published in',
      [r['container-title'], r.volume && `${r.volume}${r.issue ? `(${r.issue})` : ''}`, r.page]
        .filter(Boolean)
        .join(', '),
    ]);
  if (r.editor?.length) out.push(['Editor', r.editor.map(nameSpoken).join(', ')]);
  for (const v of [
    'authority',
    'recipient',
    'archive',
    'archive_collection',
    'archive_location',
    'publisher',
    'number',
    'genre',
    'note',
  ] as const) {
    const value = r[v];
    if (value) out.push([variableLabel(v), typeof value === 'string' ? value : value.map(nameSpoken).join(', ')]);
  }
  if (r.issued) out.push(['Date', dateShort(r.issued)]);
  for (const v of ['DOI', 'ISBN', 'PMID', 'citation-key'] as const) if (r[v]) out.push([variableLabel(v), r[v], true]);
  if (r.accessed) out.push(['Accessed', dateShort(r.accessed)]);
  out.push(['From', originOf(s)]);
  for (const part of s.mergedFrom) out.push(['Merged from', originOf(part)]);
  return out;
});
/** What is read first: a PDF, or else a page of the web as it was kept. */
const document = computed(() => {
  const files = source.value?.files ?? [];
  return (
    files.find((f) => f.main && /pdf|html/.test(f.mediaType)) ??
    files.find((f) => f.mediaType === 'application/pdf') ??
    files.find((f) => /html/.test(f.mediaType))
  );
});

/** So many days before its end access is told in another colour. */
const NEAR_DAYS = 30;
const access = computed(() => {
  const until = source.value?.record['access-until'];
  const last = lastDayOf(until);
  if (!last) return null;
  const days = Math.round((Date.parse(last) - Date.parse(new Date().toISOString().slice(0, 10))) / 86_400_000);
  const day = dateShort(until);
  return {
    near: days <= NEAR_DAYS,
    says:
      days < 0
        ? `Access ended ${day}`
        : days <= NEAR_DAYS
          ? `Access until ${day}: ${counted(days, 'day')} left`
          : `Access until ${day}`,
  };
});

/** Another like it, or a part of it, which is opened to be filled in. */
const makes = computed<MenuEntry[]>(() => {
  const record = source.value?.record;
  if (!record) return [];
  return [
    { name: 'A source like this one', run: () => make(likeThis(record)) },
    ...partsOfKind(record.type).map((kind) => ({
      name: `A part of it: ${KINDS[kind].name.toLowerCase()}`,
      run: () => make(partOf(record, kind)),
    })),
  ];
});
async function make(record: SourceRecord): Promise<void> {
  const collections = source.value?.places.map((p) => p.id) ?? [];
  const body = { record: { ...record }, destination: { collections, tags: [], reading: null } };
  const done = await changes.change(() => ask(routes.sources.add, { body }));
  if (!done?.id) return;
  await router.push(`/sources?at=${done.id}&edit=1`);
}

defineExpose({ startTagging: (): void => void (tagging.value = true) });
</script>

<template>
  <section class="@container flex h-full flex-col bg-card" aria-label="Slip">
    <div class="min-h-0 flex-1 overflow-auto px-[18px] py-2.5">
      <KitNotice v-if="error" tone="bad">{{ error }}</KitNotice>
      <p v-else-if="!source" class="text-muted">Fetching the record…</p>
      <RecordEditor v-else-if="mode === 'edit'" :source="source" @close="mode = 'card'" />
      <div v-else-if="mode === 'history'">
        <div class="mb-2 flex items-center justify-between">
          <h3 class="heading">History of {{ source.record.title }}</h3>
          <KitButton @click="mode = 'card'">Done</KitButton>
        </div>
        <HistoryList :source="source.id" />
      </div>
      <div
        v-else
        class="grid grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)] gap-x-[22px] gap-y-3 @3xl:grid-cols-[minmax(0,1.45fr)_minmax(0,1fr)_minmax(0,1fr)]"
      >
        <div>
          <CitationBlock :id="id" :pause="pause" />
          <p v-if="access" class="mt-1.5 text-fine" :class="access.near ? 'text-ochre' : 'text-muted'">
            {{ access.says }}
          </p>
          <p v-if="source.record.abstract" class="mt-1.5 line-clamp-3 text-fine text-muted">
            {{ source.record.abstract }}
          </p>
          <SourceFindings v-if="source.presence === 'live'" :id="id" :pause="pause" class="mt-3" />
          <GlossesBlock :id="id" heading="h3" :pause="pause" class="mt-3" />
        </div>
        <div>
          <h3 class="heading mb-1 flex justify-between">
            Record<span class="flex gap-3"
              ><KitButton look="quiet" class="font-normal" :to="`/sources/${id}`">Whole page</KitButton
              ><KitButton look="quiet" class="font-normal" @click="mode = 'history'">History</KitButton></span
            >
          </h3>
          <dl class="grid grid-cols-[84px_minmax(0,1fr)] gap-x-2 gap-y-0.5 text-fine">
            <template v-for="[name, value, mono] in lines" :key="name"
              ><dt class="text-muted">{{ name }}</dt>
              <dd class="break-words" :class="mono && 'font-mono text-label leading-[1.6]'">
                {{ value }}
              </dd></template
            >
          </dl>
        </div>
        <div>
          <PlacesBlock :id="id" v-model:tagging="tagging" :source="source" @file="emit('file')" />
          <FilesBlock class="mt-1.5" :source="source" @open="(page, file) => emit('open', page, file)" />
          <template v-if="source.versions.length">
            <h3 class="heading mb-0.5 mt-1.5">Versions</h3>
            <ul>
              <li v-for="v in source.versions" :key="v.id" class="group flex min-h-6 items-center gap-2">
                <RouterLink :to="`/sources?at=${v.id}`" class="truncate hover:underline" :title="v.title"
                  >{{ KINDS[v.kind].name }}{{ v.year ? `, ${v.year}` : '' }}</RouterLink
                ><KitButton
                  v-if="session.may('edit')"
                  look="bare"
                  class="text-muted opacity-0 hover:text-madder focus-visible:opacity-100 group-hover:opacity-100"
                  :name="`No version of it: ${v.title}`"
                  title="Not a version of this work; both are kept"
                  @click="unversion(v.id)"
                  ><X :size="13"
                /></KitButton>
              </li>
            </ul>
          </template>
          <p v-if="source.leftOut" class="text-fine text-ochre">
            {{ formatNumber(source.leftOut) }} of its words are more than the index holds. Search within the document to
            find them.
          </p>
        </div>
      </div>
    </div>
    <!-- What one can do keeps its place, however long the record is. -->
    <div v-if="source && mode === 'card'" class="flex shrink-0 flex-wrap gap-1.5 border-t border-line px-[18px] py-1.5">
      <KitButton v-if="document" look="main" @click="emit('open')"
        >Read<template v-if="/pdf/.test(document.mediaType)"> · {{ document.pages }} p.</template></KitButton
      >
      <KitButton v-if="session.may('edit') && source.presence === 'live'" @click="mode = 'edit'">Edit record</KitButton>
      <KitButton title="Copy the in-text citation" @click="citing.copyCited({ ids: [id] }, 'citation')">Cite</KitButton>
      <KitButton title="With a page, words around it, or without the author (C)" @click="emit('cite')"
        >Cite with a page…</KitButton
      >
      <KitMenu v-if="session.may('gather') && source.presence === 'live'" :entries="makes">New from it</KitMenu>
      <StarButton :chosen="{ ids: [id] }" :starred="source.starred" />
      <KitButton
        v-if="session.may('edit') && source.presence === 'bin'"
        look="main"
        @click="batch.restore({ ids: [id] })"
        >Restore</KitButton
      >
      <KitButton v-else-if="session.may('edit')" @click="batch.toBin({ ids: [id] })">To the bin</KitButton>
      <KitButton v-if="folds" class="ml-auto" @click="emit('fold')">Fold the slip</KitButton>
    </div>
  </section>
</template>
