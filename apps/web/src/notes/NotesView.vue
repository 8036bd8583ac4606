<script setup lang="ts">
/** The Notes stage: what is asked, headings on the left, notes in the middle, the open one on the right. */
import { PanelLeft } from '@lucide/vue';
import { useElementSize, useLocalStorage, useThrottleFn } from '@vueuse/core';
import { computed, ref, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { routes, type NoteFormat, type WebNode } from '@pandecta/contract';
import { counted } from '@pandecta/core/wording';
import { useChanges } from '../act/changes.ts';
import { useDeeds } from '../act/commands.ts';
import { ask as call, send } from '../api/client.ts';
import { useAsked } from '../data/asked.ts';
import { concerns } from '../data/live.ts';
import EmptyState from '../kit/EmptyState.vue';
import KitButton from '../kit/KitButton.vue';
import KitField from '../kit/KitField.vue';
import KitMenu from '../kit/KitMenu.vue';
import KitNotice from '../kit/KitNotice.vue';
import KitSelect from '../kit/KitSelect.vue';
import { save } from '../kit/save.ts';
import SplitHandle from '../kit/SplitHandle.vue';
import { useSession } from '../session/store.ts';
import { useNotesAsk, VIEWS, type View } from './ask.ts';
import EventRibbon from './EventRibbon.vue';
import HeadingPane from './headings/HeadingPane.vue';
import NotePane from './NotePane.vue';
import NotesList from './NotesList.vue';
import NotesNarrow from './NotesNarrow.vue';
import OutlinesPane from './outlines/OutlinesPane.vue';
import NotesTimeline from './pictures/NotesTimeline.vue';
import NotesWeb from './pictures/NotesWeb.vue';

const STRETCH = 50;
const ask = useNotesAsk();
const route = useRoute();
const router = useRouter();
const changes = useChanges();
const session = useSession();
const shown = ref(STRETCH);
const chosen = ref<string[]>([]);
watch([ask.asked, ask.sort], () => (shown.value = STRETCH));

const { data, error, isLoading } = useAsked({
  question: () => ({ ...ask.asked.value, sort: ask.sort.value, count: shown.value }),
  fetch: async ({ count, ...body }, signal) => {
    const stretches = [];
    for (let place = 0; place < count; place += 200)
      stretches.push(
        call(routes.notes.list, { body: { ...body, place, count: Math.min(200, count - place) }, signal }),
      );
    const replies = await Promise.all(stretches);
    return { ...replies[0]!, notes: replies.flatMap((r) => r.notes) };
  },
  concerns: (touched) => concerns(touched, ['note', 'heading', 'source', 'tag', 'outline']),
});

const line = useTemplateRef('line');
/** While one writes there, the address follows the line and not the line the address. */
const isAsking = ref(false);
const q = ref(String(route.query.q ?? ''));
const sendQ = useThrottleFn(() => ask.put({ q: q.value || undefined }), 150, true, true);
watch(q, () => void sendQ());
watch(
  () => String(route.query.q ?? ''),
  (now) => {
    if (!isAsking.value) q.value = now;
  },
);
const chips = computed(() => {
  const { about = [], tags = [], from = [], whose, source, yearFrom, yearTo } = ask.asked.value;
  const nameOf = (id: string): string => data.value?.about.find((h) => h.id === id)?.name ?? 'heading';
  return [
    ...about.map((id) => ({ key: id, text: `about: ${nameOf(id)}`, drop: () => ask.toggle('about', id) })),
    ...tags.map((id) => ({ key: id, text: `tag: ${data.value?.tags.find((t) => t.key === id)?.name ?? ''}`, drop: () => ask.toggle('tag', id) })), // prettier-ignore
    ...from.map((f) => ({ key: f, text: `from: ${data.value?.from.find((x) => x.key === f)?.name.toLowerCase() ?? f}`, drop: () => ask.toggle('from', f) })), // prettier-ignore
    ...(whose ? [{ key: 'whose', text: whose === 'own' ? 'yours alone' : 'shared', drop: () => ask.put({ whose: undefined }) }] : []), // prettier-ignore
    ...(source ? [{ key: 'source', text: 'on one source', drop: () => ask.put({ source: undefined }) }] : []),
    ...(yearFrom !== undefined || yearTo !== undefined ? [{ key: 'years', text: `event: ${yearFrom ?? '…'}–${yearTo ?? '…'}`, drop: () => narrowYears(undefined, undefined) }] : []), // prettier-ignore
  ];
});
const narrowYears = (since: number | undefined, until: number | undefined): Promise<unknown> =>
  ask.put({ since: since?.toString(), until: until?.toString() });
const lanes = computed(() => (ask.asked.value.about ?? []).map((id) => ({ id, name: data.value?.about.find((h) => h.id === id)?.name ?? '' }))); // prettier-ignore

const NAMES: Record<View, string> = { list: 'List', timeline: 'Timeline', web: 'Web', outlines: 'Outlines' };
const SORTS = [
  { value: 'event,title', name: 'Date of event, then title' },
  { value: '-event,title', name: 'Latest event first' },
  { value: '-changed', name: 'Changed last' },
  { value: 'author,event', name: 'Author of the source, then date' },
  { value: 'title', name: 'Title' },
];

/** A note that is begun here stands on the right while it is written. */
const isBeginning = ref(false);
watch([ask.note, ask.heading], ([note, heading]) => (note || heading) && (isBeginning.value = false));
function begin(): void {
  isBeginning.value = true;
  void ask.put({ note: undefined, heading: undefined });
}
const close = (): void => {
  isBeginning.value = false;
  void ask.put({ note: undefined, heading: undefined });
};
function openNode(node: WebNode): void {
  if (node.kind === 'note') void ask.open(node.id);
  else if (node.kind === 'source') void router.push(`/sources/${node.id}`);
  else void ask.openHeading(node.id);
}
async function join(): Promise<void> {
  const [into, ...others] = chosen.value;
  if (!into || !others.length) return;
  const done = await changes.change(() => call(routes.notes.join, { note: into, body: { notes: others } }));
  if (!done) return;
  chosen.value = [];
  await ask.open(into);
}
async function take(format: NoteFormat): Promise<void> {
  await changes.attempt(async () => {
    const response = await send(routes.notes.export, { body: { ...ask.asked.value, format } });
    save(format === 'markdown' ? 'notes.zip' : 'notes.json', await response.blob());
    changes.tell(`Saved ${counted(data.value?.total ?? 0, 'note')}`);
  });
}
const formats = [
  { name: 'Markdown, a file a note', run: () => take('markdown') },
  { name: 'JSON', run: () => take('json') },
];
useDeeds({
  note: begin,
  ask: () => {
    line.value?.focus();
    line.value?.select();
  },
});

const root = useTemplateRef<HTMLElement>('root');
const { width } = useElementSize(root);
const left = useLocalStorage('width of the headings', 196);
const right = useLocalStorage('width of the open note', 430);
const isOpen = computed(() => Boolean(ask.note.value || ask.heading.value || isBeginning.value));
/** Whether there is room for the headings; else they lie over the notes when they are wanted. */
const hasRoom = computed(() => width.value === 0 || width.value > 720);
const wantsNarrow = ref(false);
/** Where there is no room for all, the open note lies over the others. */
const isNarrow = computed(() => width.value > 0 && width.value < 1000);
</script>

<template>
  <div ref="root" class="flex h-full flex-col">
    <h1 class="sr-only">Notes</h1>
    <div class="flex items-center gap-2 border-b border-line px-4 py-2">
      <div
        class="flex min-w-0 flex-1 flex-wrap items-center gap-1.5 rounded-md border border-edge bg-card px-2.5 py-1 focus-within:border-verdigris"
      >
        <span v-for="c in chips" :key="c.key" class="chip"
          >{{ c.text
          }}<KitButton look="bare" class="min-h-5 min-w-5" :name="`Without ${c.text}`" @click="c.drop"
            >✕</KitButton
          ></span
        >
        <KitField
          ref="line"
          v-model="q"
          look="bare"
          class="min-w-40 flex-1"
          label="Ask for notes"
          @focus="isAsking = true"
          @blur="isAsking = false"
          placeholder="words, “phrases”, about:okonjo, author:tregenza, tag:used"
          maxlength="2000"
          @keydown.esc="line?.blur()"
        />
      </div>
      <KitMenu v-if="data?.total" :entries="formats" at="bottom-end">Save as…</KitMenu>
      <KitButton v-if="session.may('own')" look="main" @click="begin">New note</KitButton>
    </div>
    <div class="relative flex min-h-0 flex-1">
      <template v-if="hasRoom || wantsNarrow">
        <NotesNarrow
          :class="['shrink-0', !hasRoom && 'absolute inset-y-0 left-0 z-20 border-r border-line shadow-xl']"
          :style="{ width: `${left}px` }"
          :reply="data"
        />
        <SplitHandle v-if="hasRoom" v-model="left" :min="140" :max="340" side="left" label="Width of the headings" />
      </template>
      <section class="flex min-w-0 flex-1 flex-col" aria-label="Notes that match">
        <EventRibbon
          v-if="ask.view.value !== 'timeline' && ask.view.value !== 'outlines' && data"
          :years="data.years"
          :since="ask.asked.value.yearFrom"
          :until="ask.asked.value.yearTo"
          @narrow="narrowYears"
        />
        <div class="flex flex-wrap items-center gap-3 border-b border-line px-5 py-1.5">
          <KitButton
            v-if="!hasRoom"
            look="icon"
            :aria-pressed="wantsNarrow"
            :name="wantsNarrow ? 'Close Narrow' : 'Show Narrow'"
            @click="wantsNarrow = !wantsNarrow"
            ><PanelLeft :size="14"
          /></KitButton>
          <span class="font-semibold" role="status">{{ data ? counted(data.total, 'note') : '' }}</span>
          <div class="flex overflow-hidden rounded-[5px] border border-line" role="group" aria-label="View">
            <KitButton
              v-for="v in VIEWS"
              :key="v"
              look="bare"
              class="min-h-6 px-2 text-fine"
              :class="ask.view.value === v ? 'bg-ink text-paper' : 'bg-card hover:bg-panel'"
              :aria-pressed="ask.view.value === v"
              @click="ask.put({ view: v === 'list' ? undefined : v })"
              >{{ NAMES[v] }}</KitButton
            >
          </div>
          <KitButton v-if="chosen.length > 1 && session.may('own')" @click="join"
            >Join {{ chosen.length }} to the first</KitButton
          >
          <KitButton v-if="chosen.length" look="quiet" @click="chosen = []">Unchoose</KitButton>
          <KitSelect
            v-if="ask.view.value === 'list'"
            class="ml-auto w-52"
            label="Sort by"
            :options="SORTS"
            :model-value="ask.sort.value.join(',')"
            @update:model-value="ask.put({ sort: $event === 'event,title' ? undefined : $event })"
          />
        </div>
        <KitNotice v-if="error" tone="bad" class="m-5">{{ error }}</KitNotice>
        <OutlinesPane
          v-if="ask.view.value === 'outlines'"
          :current="route.query.outline ? String(route.query.outline) : undefined"
          :open="ask.note.value"
          @choose="ask.put({ outline: $event })"
          @open="ask.open"
        />
        <p v-else-if="!data" class="p-8 text-muted" role="status">{{ isLoading ? 'Loading the notes…' : '' }}</p>
        <EmptyState v-else-if="!data.total" :title="ask.isNarrowed.value ? 'No notes match' : 'No notes yet'"
          >{{
            ask.isNarrowed.value
              ? 'Nothing here has all of what is asked.'
              : 'Press n on a source, a mark or a page, or here: what you think of it stands beside it and leads back to it.'
          }}<template #deeds
            ><KitButton v-if="ask.isNarrowed.value" @click="((q = ''), ask.clear())">Show all notes</KitButton
            ><KitButton v-else look="main" @click="begin">New note</KitButton></template
          ></EmptyState
        >
        <NotesList
          v-else-if="ask.view.value === 'list'"
          v-model:chosen="chosen"
          :notes="data.notes"
          :total="data.total"
          :open="ask.note.value"
          @open="ask.open"
          @more="shown += STRETCH"
        />
        <NotesTimeline
          v-else-if="ask.view.value === 'timeline'"
          :asked="ask.asked.value"
          :lanes="lanes"
          :open="ask.note.value"
          @open="ask.open"
          @narrow="narrowYears"
        />
        <NotesWeb v-else :asked="ask.asked.value" @open="openNode" />
      </section>
      <template v-if="isOpen">
        <SplitHandle v-if="!isNarrow" v-model="right" :min="340" :max="760" side="right" label="Width of the note" />
        <div
          class="flex min-h-0 shrink-0 flex-col bg-paper"
          :class="isNarrow && 'absolute inset-y-0 right-0 z-20 max-w-full border-l border-line shadow-xl'"
          :style="{ width: `${Math.min(right, isNarrow ? 480 : right)}px` }"
        >
          <HeadingPane
            v-if="ask.heading.value"
            :id="ask.heading.value"
            class="flex-1"
            @open="ask.open"
            @heading="ask.openHeading"
            @close="close"
          />
          <NotePane
            v-else
            :id="ask.note.value ?? null"
            class="flex-1"
            @made="ask.open"
            @open="ask.open"
            @heading="ask.openHeading"
            @close="close"
            ><template #default="{ note }"
              ><section v-if="note && (note.about.length || note.sources.length || note.leadsHere.length)" class="mt-4">
                <h3 class="heading mb-0.5">Around this note</h3>
                <NotesWeb small :asked="{ around: note.id }" @open="openNode" /></section></template
          ></NotePane>
        </div>
      </template>
    </div>
  </div>
</template>
