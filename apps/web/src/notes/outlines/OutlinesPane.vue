<script setup lang="ts">
/** Outlines: notes in an order made by hand, for a chapter or a talk; moved with the pointer or with keys. */
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import { routes, type OutlineNode } from '@pandecta/contract';
import { counted } from '@pandecta/core/wording';
import { useChanges } from '../../act/changes.ts';
import { ask } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import EmptyState from '../../kit/EmptyState.vue';
import KitButton from '../../kit/KitButton.vue';
import KitCheck from '../../kit/KitCheck.vue';
import KitCombobox from '../../kit/KitCombobox.vue';
import KitField from '../../kit/KitField.vue';
import KitNotice from '../../kit/KitNotice.vue';
import KitSelect from '../../kit/KitSelect.vue';
import { useSession } from '../../session/store.ts';
import { altered, indented, movedBefore, notesIn, outdented, rowsOf, shifted, without } from './tree.ts';

const props = defineProps<{ current: string | undefined; open: string | undefined }>();
const emit = defineEmits<{ choose: [id: string | undefined]; open: [note: string] }>();
const session = useSession();
const changes = useChanges();
const { data, error } = useAsked({
  question: () => 'outlines',
  fetch: async (_, signal) => (await ask(routes.outlines.list, { signal })).outlines,
  concerns: (touched) => concerns(touched, ['outline', 'note']),
});
/** The one that is chosen, and none until it is there: what is put in is never put into another. */
const outline = computed(() => (props.current ? data.value?.find((o) => o.id === props.current) : data.value?.[0]));
const choices = computed(() =>
  (data.value ?? []).map((o) => ({ value: o.id, name: o.personal ? `${o.name} (yours alone)` : o.name })),
);
const rows = computed(() => rowsOf(outline.value?.nodes ?? []));
/** The titles of the notes in it. */
const { data: titles } = useAsked({
  question: () => outline.value?.id ?? null,
  fetch: async (id, signal) => {
    const names = new Map<string, string>();
    for (let place = 0; ; place += 200) {
      const { notes } = await ask(routes.notes.list, { body: { outline: id, place, count: 200 }, signal });
      for (const n of notes) names.set(n.id, n.title || 'Untitled note');
      if (notes.length < 200) return names;
    }
  },
  concerns: (touched) => concerns(touched, ['outline', 'note']),
});
const nameOf = ({ note, title }: OutlineNode): string => (note ? (titles.value?.get(note) ?? '…') : title);
const mayEdit = computed(() => Boolean(outline.value && (outline.value.personal || session.may('arrange'))));
const used = computed(() => rows.value.filter((r) => r.node.note && r.node.used).length);
const list = useTemplateRef<HTMLElement>('list');

async function write(nodes: OutlineNode[]): Promise<void> {
  const of = outline.value;
  if (!of || nodes === of.nodes) return;
  await changes.change(() => ask(routes.outlines.edit, { outline: of.id, body: { name: of.name, nodes } }));
}
const making = ref('');
const isMaking = ref(false);
async function make(): Promise<void> {
  if (!making.value.trim()) return;
  const body = { name: making.value, nodes: [], ...(!session.may('arrange') && { personal: true }) };
  const done = await changes.change(() => ask(routes.outlines.make, { body }));
  if (!done?.id) return;
  [making.value, isMaking.value] = ['', false];
  emit('choose', done.id);
}
async function remove(): Promise<void> {
  const done = await changes.change(() => ask(routes.outlines.remove, { outline: outline.value!.id }));
  if (done) emit('choose', undefined);
}

/** A note is put in by its title. */
const text = ref('');
const found = ref<{ key: string; name: string }[]>([]);
watch(text, async (typed) => {
  if (!typed.trim()) return void (found.value = []);
  const { notes } = await ask(routes.notes.list, {
    body: { q: `${typed.trim()}*`, count: 12, sort: ['-found'] },
  }).catch(() => ({ notes: [] }));
  const inside = new Set(notesIn(outline.value?.nodes ?? []));
  if (typed === text.value)
    found.value = notes.filter((n) => !inside.has(n.id)).map((n) => ({ key: n.id, name: n.title || 'Untitled note' }));
});
const put = (note: string | null, title = ''): Promise<void> =>
  write([...(outline.value?.nodes ?? []), { note, title, used: false, children: [] }]);

async function key(event: KeyboardEvent, path: number[]): Promise<void> {
  const { nodes } = outline.value!;
  const by = { ArrowUp: -1, ArrowDown: 1 }[event.key] as 1 | -1 | undefined;
  if (by && !event.altKey) {
    const all = [...list.value!.querySelectorAll<HTMLElement>('[data-row]')];
    all[all.indexOf(event.currentTarget as HTMLElement) + by]?.focus();
  } else if (mayEdit.value && event.altKey && by) await write(shifted(nodes, path, by));
  else if (mayEdit.value && event.altKey && event.key === 'ArrowRight') await write(indented(nodes, path));
  else if (mayEdit.value && event.altKey && event.key === 'ArrowLeft') await write(outdented(nodes, path));
  else if (mayEdit.value && event.key === 'Delete') await write(without(nodes, path));
  else return;
  event.preventDefault();
  event.stopPropagation();
  if (event.altKey) void nextTick(() => (event.target as HTMLElement).focus?.());
}
/** The row that is dragged, and the one it would go before. */
const dragged = ref<number[] | null>(null);
const over = ref('');
function drop(path: number[]): void {
  if (dragged.value) void write(movedBefore(outline.value!.nodes, dragged.value, path));
  [dragged.value, over.value] = [null, ''];
}
</script>

<template>
  <div class="flex min-h-0 flex-1 flex-col">
    <div class="flex flex-wrap items-center gap-2 border-b border-line px-5 py-1.5">
      <KitSelect
        v-if="choices.length"
        class="w-56"
        label="Outline"
        :options="choices"
        :model-value="outline?.id"
        @update:model-value="emit('choose', $event)"
      />
      <span v-if="outline" class="text-fine text-muted"
        >{{ used }} of {{ counted(rows.filter((r) => r.node.note).length, 'note') }} used</span
      >
      <span class="ml-auto flex items-center gap-2">
        <template v-if="isMaking"
          ><KitField
            v-model="making"
            class="w-48"
            label="Name of the outline"
            placeholder="Chapter 2"
            @keydown.enter="make"
            @keydown.esc.stop="isMaking = false"
          /><KitButton look="main" @click="make">Make</KitButton></template
        >
        <KitButton v-else @click="isMaking = true">New outline</KitButton>
        <KitButton v-if="outline && mayEdit" look="quiet" @click="remove">Remove</KitButton>
      </span>
    </div>
    <KitNotice v-if="error" tone="bad" class="m-4">{{ error }}</KitNotice>
    <EmptyState v-else-if="data && !data.length" title="No outline yet"
      >An outline puts notes in the order of a chapter or a talk. A note may stand in any number of them.</EmptyState
    >
    <div v-else-if="outline" class="min-h-0 flex-1 overflow-auto px-5 py-2">
      <ul ref="list" :aria-label="outline.name">
        <li
          v-for="r in rows"
          :key="r.path.join('.')"
          class="flex items-center gap-2 border-b border-line py-0.5"
          :class="[
            r.node.note === open && r.node.note ? 'bg-verdtint' : '',
            over === r.path.join('.') && 'border-t-2 border-t-verdigris',
          ]"
          :style="{ paddingLeft: `${r.depth * 22 + 2}px` }"
          :draggable="mayEdit"
          @dragstart="dragged = r.path"
          @dragover.prevent="over = r.path.join('.')"
          @dragend="over = ''"
          @drop.prevent="drop(r.path)"
        >
          <KitCheck
            v-if="r.node.note"
            :checked="r.node.used"
            :disabled="!mayEdit"
            :label="`Used: ${nameOf(r.node)}`"
            @check="write(altered(outline.nodes, r.path, { used: !r.node.used }))"
          />
          <KitButton
            look="bare"
            data-row
            class="min-h-7 min-w-0 flex-1 truncate text-left"
            :class="r.node.note ? ['font-serif text-read', r.node.used && 'text-muted'] : 'heading'"
            :title="mayEdit ? 'Alt with arrows moves it, Delete takes it out' : undefined"
            @click="r.node.note && emit('open', r.node.note)"
            @keydown="key($event, r.path)"
            >{{ nameOf(r.node) }}</KitButton
          >
          <template v-if="mayEdit">
            <KitButton look="icon" :name="`Up: ${nameOf(r.node)}`" @click="write(shifted(outline.nodes, r.path, -1))"
              >↑</KitButton
            >
            <KitButton look="icon" :name="`Down: ${nameOf(r.node)}`" @click="write(shifted(outline.nodes, r.path, 1))"
              >↓</KitButton
            >
            <KitButton
              look="icon"
              :name="`Out: ${nameOf(r.node)}`"
              :disabled="!r.depth"
              @click="write(outdented(outline.nodes, r.path))"
              >←</KitButton
            >
            <KitButton look="icon" :name="`In: ${nameOf(r.node)}`" @click="write(indented(outline.nodes, r.path))"
              >→</KitButton
            >
            <KitButton look="icon" :name="`Take out: ${nameOf(r.node)}`" @click="write(without(outline.nodes, r.path))"
              >×</KitButton
            >
          </template>
        </li>
      </ul>
      <p v-if="!rows.length" class="py-2 text-muted">Nothing stands in it yet.</p>
      <div v-if="mayEdit" class="mt-2 flex items-center gap-2">
        <KitCombobox
          v-model:text="text"
          class="w-72"
          label="Note to put in"
          placeholder="put in a note by its title"
          :entries="found"
          @choose="put($event.key)"
          @done="text = ''"
          ><template #default="{ entry }"
            ><span class="truncate">{{ entry.name }}</span></template
          ></KitCombobox
        >
        <KitButton v-if="open && !notesIn(outline.nodes).includes(open)" @click="put(open)"
          >Put in the open note</KitButton
        >
        <KitButton v-if="text.trim()" look="quiet" @click="put(null, text.trim()).then(() => (text = ''))"
          >as a title of its own</KitButton
        >
      </div>
    </div>
  </div>
</template>
