<script setup lang="ts">
/** One placement of a collection in the tree, with what stands below it. */
import { ChevronDown, ChevronRight, Ellipsis } from '@lucide/vue';
import { useLocalStorage } from '@vueuse/core';
import { computed, nextTick, ref, useTemplateRef } from 'vue';
import { countSources } from '@pandecta/core/changes';
import { useSession } from '../session/store.ts';
import KitButton from '../kit/KitButton.vue';
import KitField from '../kit/KitField.vue';
import KitMenu, { type MenuEntry } from '../kit/KitMenu.vue';
import { vDrag, vDrop, type Drop } from '../kit/drag.ts';
import type { Dragged } from '../places/dragged.ts';
import { usePlaces, type Branch } from '../places/store.ts';

const props = defineProps<{ branch: Branch; depth: number; chosen: string | undefined }>();
const emit = defineEmits<{ choose: [string]; adopt: [string] }>();
const places = usePlaces();
const session = useSession();
const closed = useLocalStorage<string[]>('closed collections', []);
const isOpen = computed(() => !closed.value.includes(props.branch.placement));
const over = ref<Dragged | null>(null);
const renaming = ref(false);
const draft = ref('');
const input = useTemplateRef<InstanceType<typeof KitField>>('input');

function toggle(): void {
  const id = props.branch.placement;
  closed.value = isOpen.value ? [...closed.value, id] : closed.value.filter((c) => c !== id);
}

const drop: Drop<Dragged> = {
  over: (d) => (over.value = d),
  accepts: (d) => session.may('arrange') && (d.what === 'sources' || d.collection !== props.branch.collection.id),
  dropped: (d) =>
    void (d.what === 'sources'
      ? places.file(d.chosen, props.branch.collection.id)
      : places.place(d.collection, props.branch.collection.id, d.placement)),
};

/** The name one began with. */
let seen = '';

async function startRename(): Promise<void> {
  draft.value = seen = props.branch.collection.name;
  renaming.value = true;
  await nextTick();
  input.value?.select();
}

const deeds = computed<MenuEntry[]>(() => {
  const { collection, parent, placement, shared } = props.branch;
  return [
    { name: 'New collection below it', run: () => emit('adopt', collection.id) },
    { name: 'Rename', run: startRename },
    ...(parent ? [{ name: 'Move to the top', run: () => places.place(collection.id, null, placement) }] : []),
    ...places.flat
      .filter((c) => c.id !== collection.id && c.id !== parent)
      .slice(0, 8)
      .map((c) => ({ name: `Place under ${c.path} as well`, run: () => places.place(collection.id, c.id) })),
    {
      name: `${shared ? 'Remove from here' : 'Remove the collection'}; ${countSources(collection.count)} stay`,
      warn: true,
      run: () => places.unplace(placement),
    },
  ];
});

function finishRename(): void {
  if (!renaming.value) return;
  renaming.value = false;
  if (draft.value.trim() && draft.value.trim() !== seen)
    void places.rename(props.branch.collection.id, draft.value.trim(), seen);
}
</script>

<template>
  <li
    role="treeitem"
    :aria-expanded="branch.children.length ? isOpen : undefined"
    :aria-selected="chosen === branch.collection.id"
    :aria-label="branch.collection.name"
  >
    <div
      v-drag="() => ({ what: 'collection', collection: branch.collection.id, placement: branch.placement })"
      v-drop="drop"
      class="group flex min-h-[26px] items-center gap-1 rounded pr-1.5"
      :style="{ paddingLeft: `${depth * 14 + 2}px` }"
      :class="[
        chosen === branch.collection.id && 'bg-verdtint font-semibold text-verdigris',
        over && 'bg-card outline-2 outline-dashed outline-verdigris',
      ]"
    >
      <KitButton
        v-if="branch.children.length"
        look="icon"
        class="-mx-1"
        :name="isOpen ? 'Close' : 'Open'"
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
        :title="branch.collection.name"
        @click="emit('choose', branch.collection.id)"
        @dblclick="session.may('arrange') && startRename()"
      >
        {{ branch.collection.name
        }}<span v-if="branch.shared" title="Stands in several places">
          ↗<span class="sr-only">, stands in several places</span></span
        >
      </KitButton>
      <KitMenu
        v-if="session.may('arrange') && !renaming"
        :entries="deeds"
        look="bare"
        at="bottom-end"
        class="at-hand text-muted"
        :name="`What to do with ${branch.collection.name}`"
        ><Ellipsis :size="14"
      /></KitMenu>
      <span class="count" :class="over?.what === 'sources' && 'text-verdigris'">{{
        over?.what === 'sources' ? `+${over.count}` : branch.collection.count
      }}</span>
    </div>
    <ul v-if="branch.children.length && isOpen" role="group">
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
