<script setup lang="ts">
/** One note: its title, date, headings, text, what leads to it, and what can be done with it. */
import { computed, nextTick, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { routes, type CheckedQuotation, type EditNote, type NewNote, type NoteReply } from '@pandecta/contract';
import { emptyText, HOW_NAMES, titleFrom, type DocNode } from '@pandecta/core/notes';
import { placeWritten } from '@pandecta/core/page-numbers';
import { useChanges } from '../act/changes.ts';
import { ask } from '../api/client.ts';
import { useAsked } from '../data/asked.ts';
import { concerns } from '../data/live.ts';
import KitButton from '../kit/KitButton.vue';
import KitField from '../kit/KitField.vue';
import KitMenu, { type MenuEntry } from '../kit/KitMenu.vue';
import KitNotice from '../kit/KitNotice.vue';
import TimeText from '../kit/TimeText.vue';
import { useSession } from '../session/store.ts';
import AboutField from './AboutField.vue';
import NoteEditor from './editor/NoteEditor.vue';
import { addressOfPlace, type Told } from './editor/nodes.ts';
import { useSaving } from './editor/saving.ts';
import QuotationMends from './editor/QuotationMends.vue';

const props = defineProps<{ id: string | null; begins?: NewNote }>();
const emit = defineEmits<{ made: [id: string]; open: [id: string]; heading: [id: string]; close: [] }>();
const session = useSession();
const changes = useChanges();
const router = useRouter();
const text = useTemplateRef('text');
const titleField = useTemplateRef('titleField');
const title = ref('');
/** The text the editor begins with; another note is another editor. */
const first = shallowRef<DocNode | null>(null);
const key = ref('');
let isOwnMaking = false;

const saving = useSaving(
  () => ({ title: title.value, text: text.value?.read() ?? first.value ?? emptyText() }),
  (id) => {
    isOwnMaking = true;
    emit('made', id);
  },
);
const { data, error } = useAsked({
  question: () => props.id,
  async fetch(note, signal) {
    for (;;) {
      const turns = saving.turns();
      const reply = await ask(routes.notes.one, { note, signal });
      // What was saved meanwhile is newer than the answer.
      if (turns === saving.turns() || signal.aborted) return reply;
    }
  },
  concerns: (touched, id) => concerns(touched, ['note'], id) || concerns(touched, ['heading', 'source', 'tag']),
});
const mayEdit = computed(() => (data.value ? data.value.personal || session.may('mark') : session.may('own')));

watch(
  () => props.id,
  (id) => {
    if (id || isOwnMaking) return;
    const empty = emptyText();
    saving.follow(
      null,
      { title: '', text: empty },
      { ...props.begins, ...(!session.may('mark') && { personal: true }) },
    );
    [title.value, first.value, key.value] = [props.begins?.title ?? '', empty, `new ${Date.now()}`];
    void nextTick(() => titleField.value?.focus());
  },
  { immediate: true },
);
/** What the server has stands in the editor from now on. */
function takeOver(note: NoteReply): void {
  title.value = note.title;
  text.value?.put(note.text);
  saving.follow(note.id, { title: note.title, text: text.value?.read() ?? note.text });
}
watch(data, (now, before) => {
  if (!now) return;
  const stands = { title: now.title, text: now.text };
  // What one made here just now is in the editor already.
  if (isOwnMaking) {
    isOwnMaking = false;
    checkSoon();
    return;
  }
  if (!before || before.id !== now.id || !first.value) {
    saving.follow(now.id, stands);
    [title.value, first.value, key.value] = [now.title, now.text, now.id];
    void nextTick(() => saving.follow(now.id, { title: now.title, text: text.value?.read() ?? now.text }));
  } else if (
    !saving.isWriting() &&
    JSON.stringify(before.text) + before.title !== JSON.stringify(now.text) + now.title
  ) {
    takeOver(now);
  }
  checkSoon();
});

/** Whether the quotations stand where they say. */
const checked = shallowRef<CheckedQuotation[]>([]);
async function checkNow(): Promise<void> {
  const id = props.id;
  if (!id || !data.value?.sources.length) return void (checked.value = []);
  const reply = await ask(routes.notes.check, { note: id }).catch(() => null);
  if (reply && id === props.id) checked.value = reply.quotations;
}
let checking = 0;
function checkSoon(): void {
  clearTimeout(checking);
  checking = window.setTimeout(() => void checkNow(), 400);
}
const SAYS: Record<CheckedQuotation['stands'], string> = {
  yes: 'stands there word for word',
  nearly: 'nearly: some words differ',
  no: 'does not stand there',
  unknown: '',
};
const told = computed(() => {
  const sources = new Map(data.value?.sources.map((s) => [s.id, s.name]));
  const all = checked.value;
  return (place: number, { source, file, page, cited, mark }: Record<string, unknown>): Told => {
    const check = all.find((c) => c.place === place);
    const where = [sources.get(String(source)) ?? (source ? 'source' : ''), cited && placeWritten(String(cited))].filter(Boolean).join(', '); // prettier-ignore
    const to = addressOfPlace({ source, file, page, mark });
    const stands = check
      ? check.elsewhere
        ? `stands on ${placeWritten(check.citedElsewhere)}`
        : SAYS[check.stands]
      : '';
    return { where, to, stands, isOff: check?.stands === 'nearly' || check?.stands === 'no' };
  };
});

async function edit(body: EditNote): Promise<void> {
  if (!(await saving.settle()) || !props.id) return;
  await changes.change(() => ask(routes.notes.edit, { note: props.id!, body }));
}
const event = ref('');
const tags = ref('');
// What is being typed there stays.
watch(data, (now, before) => {
  const isOther = now?.id !== before?.id;
  if (isOther || event.value === (before?.event ?? '')) event.value = now?.event ?? '';
  if (isOther || tags.value === (before?.tags.join(', ') ?? '')) tags.value = now?.tags.join(', ') ?? '';
});
const setEvent = (): void => void (event.value.trim() !== (data.value?.event ?? '') && edit({ event: event.value.trim() || null })); // prettier-ignore
const setTags = (): void => void (tags.value !== data.value?.tags.join(', ') && edit({ tags: tags.value.split(',').map((t) => t.trim()).filter(Boolean) })); // prettier-ignore

async function split(): Promise<void> {
  if (!(await saving.settle()) || !props.id || !text.value) return;
  const { start, end } = text.value.stretch();
  const done = await changes.change(() =>
    ask(routes.notes.split, { note: props.id!, body: { start, end, title: '' } }),
  );
  if (done?.id) emit('open', done.id);
}
async function remove(): Promise<void> {
  await saving.settle();
  if (await changes.change(() => ask(routes.notes.remove, { note: props.id! }))) emit('close');
}
const deeds = computed((): MenuEntry[] => [
  ...(data.value?.personal && session.may('mark')
    ? [{ name: 'Show to all members', run: () => changes.change(() => ask(routes.notes.share, { note: props.id! })) }]
    : []),
  {
    name: 'Notes on the same sources',
    run: () => void router.push(`/notes?source=${data.value?.sources[0]?.id ?? ''}`),
  },
  { name: 'Remove the note', run: remove },
]);
function mend(place: number, to: { words?: string; page?: number; cited?: string }): void {
  text.value?.mend(place, to);
  saving.typed();
}
const hint = computed(() => ({ saved: props.id ? 'Saved' : '', writing: 'Saving…', conflict: '', failed: 'Not saved yet' })[saving.state.value]); // prettier-ignore
const placeholder = computed(() => (first.value ? titleFrom(first.value) : '') || 'Title');
</script>

<template>
  <article class="flex min-h-0 flex-col overflow-auto px-5 py-4 text-body" :aria-label="data?.title || 'New note'">
    <KitNotice v-if="error" tone="bad">{{ error }}</KitNotice>
    <p v-else-if="!first" class="p-4 text-muted" role="status">Loading the note…</p>
    <template v-else>
      <header class="mb-1 flex items-baseline gap-3 text-fine text-muted">
        <span v-if="data"
          >Note · {{ data.personal ? 'yours alone' : 'shared' }} · {{ data.by }}, <TimeText :at="data.changed" to="day"
        /></span>
        <span v-else>New note</span>
        <span role="status">{{ hint }}</span>
        <span class="ml-auto flex items-baseline gap-3">
          <KitMenu v-if="data && mayEdit" :entries="deeds" look="quiet" at="bottom-end">More</KitMenu>
          <KitButton look="quiet" @click="emit('close')">Close</KitButton>
        </span>
      </header>
      <KitNotice v-if="saving.state.value === 'conflict' && data" tone="warn" boxed class="mb-2"
        >Someone changed this note while you wrote. Nothing is lost: what you wrote stands here.
        <KitButton look="word" @click="saving.save(true)">Keep what I wrote</KitButton>
        <KitButton look="word" class="ml-2" @click="takeOver(data)">Take theirs</KitButton></KitNotice
      >
      <KitField
        ref="titleField"
        v-model="title"
        look="bare"
        :lines="1"
        class="note-title font-serif text-title font-semibold leading-tight"
        label="Title of the note"
        :placeholder="placeholder"
        maxlength="300"
        :readonly="!mayEdit"
        @update:model-value="saving.typed()"
        @keydown.enter.prevent="text?.focus()"
      />
      <dl v-if="data" class="my-2 grid grid-cols-[5rem_1fr] gap-y-0.5 text-fine">
        <dt class="py-1 text-muted">Event</dt>
        <dd>
          <KitField
            v-model="event"
            class="w-56"
            label="When it happened"
            placeholder="18 Feb 1872, spring 1872, 187X"
            maxlength="100"
            :readonly="!mayEdit"
            :error="data.event && !data.dated ? 'Not read as a date: it sorts last' : ''"
            @change="setEvent"
          />
        </dd>
        <dt class="py-1 text-muted">About</dt>
        <dd>
          <AboutField
            :about="data.about"
            :editable="mayEdit"
            @set="edit({ about: $event })"
            @open="emit('heading', $event)"
          />
        </dd>
        <dt class="py-1 text-muted">Tags</dt>
        <dd>
          <KitField
            v-model="tags"
            class="w-56"
            label="Tags, with commas between"
            placeholder="none"
            :readonly="!mayEdit"
            @change="setTags"
          />
        </dd>
        <template v-if="data.sources.length">
          <dt class="py-1 text-muted">{{ data.sources.length === 1 ? 'Source' : 'Sources' }}</dt>
          <dd class="flex flex-wrap gap-x-3">
            <RouterLink
              v-for="s in data.sources"
              :key="s.id"
              class="inline-flex min-h-6 items-center text-verdigris underline underline-offset-2"
              :title="s.title"
              :to="addressOfPlace({ ...s, source: s.id })"
              >{{ s.name }}{{ s.cited ? `, ${placeWritten(s.cited)}` : '' }}</RouterLink
            >
          </dd>
        </template>
      </dl>
      <NoteEditor
        ref="text"
        :key="key"
        :text="first"
        :editable="mayEdit"
        :told="told"
        @change="saving.typed()"
        @go="router.push($event)"
      />
      <QuotationMends v-if="mayEdit" :checked="checked" class="mt-3" @mend="mend" />
      <section v-if="data?.leadsHere.length" class="mt-4">
        <h3 class="heading mb-0.5">Leads here</h3>
        <p v-for="l in data.leadsHere" :key="`${l.id} ${l.how}`">
          <KitButton look="word" class="min-h-6" @click="emit('open', l.id)">{{
            l.title || 'Untitled note'
          }}</KitButton><span v-if="l.how" class="ml-2 text-fine text-muted">{{ HOW_NAMES[l.how] }} this note</span>
        </p>
      </section>
      <slot :note="data" />
      <div v-if="data && mayEdit" class="mt-4 flex flex-wrap gap-2">
        <KitButton title="From the cursor to the end, or what is chosen" @click="split">Split off as a note</KitButton>
      </div>
    </template>
  </article>
</template>

<style>
.note-title textarea {
  min-height: 26px;
  field-sizing: content;
  resize: none;
}
</style>
