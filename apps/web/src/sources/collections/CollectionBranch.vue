<script setup lang="ts">
/** One placement of a collection in the tree, with what stands below it. */
import { ChevronDown, ChevronRight, Ellipsis, Filter, Lock } from '@lucide/vue';
import { useLocalStorage } from '@vueuse/core';
import { computed, nextTick, ref, useTemplateRef } from 'vue';
import { countSources } from '@pandecta/core/changes';
import { useSession } from '../../session/store.ts';
import KitButton from '../../kit/KitButton.vue';
import KitField from '../../kit/KitField.vue';
import KitMenu, { type MenuEntry } from '../../kit/KitMenu.vue';
import { vDrag, vDrop, type Drop, type Edge } from '../../kit/drag.ts';
import type { Dragged } from '../../places/dragged.ts';
import { usePlaces, type Branch } from '../../places/store.ts';
import { dayInWords } from '../values.ts';
import { useCollectionDeeds, type Choice } from './deeds.ts';
import { behind, stepped } from './order.ts';

const props = defineProps<{ branch: Branch; depth: number; chosen: string | undefined }>();
const emit = defineEmits<{ choose: [string]; adopt: [string] }>();
const places = usePlaces();
const session = useSession();
/** Those that were closed, or opened, by hand. */
const closed = useLocalStorage<string[]>('closed collections', []);
/** Open by themselves are so many levels: below them, what stands in several places would be drawn ever more often. */
const OPEN_LEVELS = 4;
const isOpen = computed(() => closed.value.includes(props.branch.placement) !== props.depth < OPEN_LEVELS);
const doing = useCollectionDeeds();
/** What is one's own one alters oneself; what all see, whoever may. */
const mayAlter = computed(() => session.may('arrange') || props.branch.collection.mine);
const over = ref<Dragged | null>(null);
const edge = ref<Edge>('in');
const renaming = ref(false);
const draft = ref('');
const input = useTemplateRef<InstanceType<typeof KitField>>('input');

function toggle(): void {
  const id = props.branch.placement;
  closed.value = closed.value.includes(id) ? closed.value.filter((c) => c !== id) : [...closed.value, id];
}

/** Near an edge a collection goes beside it; sources always go in. */
const edgeFor = (d: Dragged, at: Edge): Edge => (d.what === 'sources' ? 'in' : at);

function says(d: Dragged, at: Edge): string {
  const { name } = props.branch.collection;
  if (d.what === 'sources') return `Files ${countSources(d.count)} in ${name}; they stay in their other collections`;
  return at === 'in' ? `Moves ${d.name} under ${name}` : `Puts ${d.name} ${at} ${name}`;
}

const drop: Drop<Dragged> = {
  over(d, at) {
    over.value = d;
    edge.value = d ? edgeFor(d, at) : 'in';
    doing.wouldDo = d ? says(d, edge.value) : '';
  },
  accepts: (d) => mayAlter.value && (d.what === 'sources' || d.collection !== props.branch.collection.id),
  dropped(d, at) {
    const { collection, parent, placement } = props.branch;
    if (d.what === 'sources') return void places.file(d.chosen, [collection.id]);
    const moved = { collection: d.collection, movedFrom: d.placement };
    if (at === 'in') return void places.place({ ...moved, parent: collection.id });
    void places.place({ ...moved, parent, before: at === 'before' ? placement : behind(places, props.branch) });
  },
};

/** Alt and an arrow moves it among those beside it, under the one above, or out. */
function key(event: KeyboardEvent): void {
  if (!event.altKey || !mayAlter.value || !stepped(places, props.branch, event.key)) return;
  event.preventDefault();
  event.stopPropagation();
}

/** What shows when one rests on it. */
const hover = computed(() => {
  const { name, says: what, until, rule, mine } = props.branch.collection;
  const end = until ? `Needed until ${dayInWords(until.day)}${until.what ? `, ${until.what}` : ''}` : '';
  return [name, what, end, rule ? 'A rule adds what it finds' : '', mine ? 'Yours alone' : '']
    .filter(Boolean)
    .join('\n');
});

/** The name one began with. */
let seen = '';

async function startRename(): Promise<void> {
  draft.value = seen = props.branch.collection.name;
  renaming.value = true;
  await nextTick();
  input.value?.select();
}

const choose = (what: Choice) => () => void (doing.choosing = { what, branch: props.branch });
const deeds = computed<MenuEntry[]>(() => {
  const { collection, placement, shared, byHand, parent } = props.branch;
  const n = countSources(collection.count);
  return [
    { name: 'New collection below it', run: () => emit('adopt', collection.id) },
    { name: 'Rename', run: startRename },
    ...(session.may('arrange')
      ? [
          {
            name: collection.mine ? 'Show to all members' : 'Keep for yourself alone',
            run: () => places.edit(collection.id, { mine: !collection.mine }),
          },
        ]
      : []),
    { name: 'Describe, end date, rule, tags…', run: () => (doing.describing = props.branch) },
    { name: 'Move…', hint: 'Alt ↑ ↓ ← →', run: choose('move') },
    { name: 'Place under another as well…', run: choose('place') },
    ...(byHand ? [{ name: 'Sort by name again', run: () => places.orderByName(parent) }] : []),
    { name: 'Copy', run: () => places.copy(collection.id) },
    { name: 'Merge another into it…', run: choose('merge') },
    { name: 'Compare with…', run: choose('compare') },
    {
      name: shared ? 'Remove from here; it stays elsewhere' : `Remove the collection; ${n} stay`,
      warn: true,
      run: () => places.unplace(placement),
    },
    {
      name: `Remove it and move its ${n} to the bin`,
      warn: true,
      run: () => places.toBin(collection.id),
    },
  ];
});

function finishRename(): void {
  if (!renaming.value) return;
  renaming.value = false;
  if (draft.value.trim() && draft.value.trim() !== seen)
    void places.edit(props.branch.collection.id, { name: draft.value.trim(), seen });
}
</script>

<template>
  <li>
    <div
      role="group"
      :aria-label="branch.collection.name"
      v-drag="
        () => ({
          what: 'collection',
          collection: branch.collection.id,
          placement: branch.placement,
          name: branch.collection.name,
        })
      "
      v-drop="drop"
      class="group flex min-h-[26px] items-center gap-1 rounded pr-1.5"
      :style="{ paddingLeft: `${depth * 14 + 2}px` }"
      :class="[
        chosen === branch.collection.id && 'bg-verdtint font-semibold text-verdigris',
        over && edge === 'in' && 'bg-card outline-2 outline-dashed outline-verdigris',
        over && edge === 'before' && 'shadow-[0_-2px_0_0_var(--color-verdigris)]',
        over && edge === 'after' && 'shadow-[0_2px_0_0_var(--color-verdigris)]',
      ]"
      @keydown="key"
    >
      <KitButton
        v-if="branch.children.length"
        look="icon"
        class="-mx-1"
        :name="isOpen ? 'Close' : 'Open'"
        :aria-expanded="isOpen"
        @click="toggle"
        ><ChevronDown v-if="isOpen" :size="13" /><ChevronRight v-else :size="13"
      /></KitButton>
      <span v-else class="w-4 shrink-0" />
      <KitField
        v-if="renaming"
        ref="input"
        v-model="draft"
        class="min-w-0 flex-1"
        label="Name of the collection"
        @keydown.enter="finishRename"
        @keydown.esc.stop="renaming = false"
        @blur="finishRename"
      />
      <KitButton
        v-else
        look="bare"
        class="min-w-0 flex-1 truncate text-left"
        :title="hover"
        :aria-description="hover"
        :aria-current="chosen === branch.collection.id"
        @click="emit('choose', branch.collection.id)"
        @dblclick="mayAlter && startRename()"
      >
        {{ branch.collection.name
        }}<span v-if="branch.shared" title="Stands in several places">
          ↗<span class="sr-only">, stands in several places</span></span
        ><span v-if="branch.collection.until" class="ml-1 text-label text-ochre">{{
          dayInWords(branch.collection.until.day)
        }}</span>
      </KitButton>
      <KitMenu
        v-if="mayAlter && !renaming"
        :entries="deeds"
        look="bare"
        at="bottom-end"
        class="at-hand text-muted"
        :name="`What to do with ${branch.collection.name}`"
        ><Ellipsis :size="14"
      /></KitMenu>
      <Lock v-if="branch.collection.mine" :size="11" class="shrink-0 text-muted" aria-label="yours alone" />
      <Filter v-if="branch.collection.rule" :size="11" class="shrink-0 text-muted" aria-label="has a rule" />
      <span class="count" :class="over?.what === 'sources' && 'text-verdigris'">{{
        over?.what === 'sources' ? `+${over.count}` : branch.collection.count
      }}</span>
    </div>
    <ul v-if="branch.children.length && isOpen">
      <CollectionBranch
        v-for="child in branch.children"
        :key="child.placement"
        :branch="child"
        :depth="depth + 1"
        :chosen="chosen"
        @choose="emit('choose', $event)"
        @adopt="emit('adopt', $event)"
      />
    </ul>
  </li>
</template>
