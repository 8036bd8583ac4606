<script setup lang="ts">
/** One placement of a collection in the tree, with what stands below it. */
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue';
import { ChevronDown, ChevronRight, Ellipsis } from '@lucide/vue';
import { useLocalStorage } from '@vueuse/core';
import { computed, nextTick, ref } from 'vue';
import { countSources } from '@pandecta/core/changes';
import { useSession } from '../session/store.ts';
import { vDrag, vDrop, type Dragged, type Drop } from './drag.ts';
import { usePlaces, type Branch } from './store.ts';

const props = defineProps<{ branch: Branch; depth: number; chosen: string | undefined }>();
const emit = defineEmits<{ choose: [string]; adopt: [string] }>();
const places = usePlaces();
const session = useSession();
const closed = useLocalStorage<string[]>('closed collections', []);
const isOpen = computed(() => !closed.value.includes(props.branch.placement));
const over = ref<Dragged | null>(null);
const renaming = ref(false);
const draft = ref('');
const input = ref<HTMLInputElement>();

function toggle(): void {
  const id = props.branch.placement;
  closed.value = isOpen.value ? [...closed.value, id] : closed.value.filter((c) => c !== id);
}

const drop: Drop = {
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
      <button
        v-if="branch.children.length"
        class="-mx-1 grid h-6 w-6 shrink-0 place-items-center text-muted"
        :aria-label="isOpen ? 'Close' : 'Open'"
        @click="toggle"
      >
        <ChevronDown v-if="isOpen" :size="13" /><ChevronRight v-else :size="13" />
      </button>
      <span v-else class="w-4 shrink-0" />
      <input
        v-if="renaming"
        ref="input"
        v-model="draft"
        class="field !py-0"
        aria-label="Name of the collection"
        @keydown.enter="finishRename"
        @keydown.esc.stop="renaming = false"
        @blur="finishRename"
      />
      <button
        v-else
        class="min-w-0 flex-1 truncate text-left"
        :title="branch.collection.name"
        @click="emit('choose', branch.collection.id)"
        @dblclick="session.may('arrange') && startRename()"
      >
        {{ branch.collection.name
        }}<span v-if="branch.shared" title="Stands in several places">
          ↗<span class="sr-only">, stands in several places</span></span
        >
      </button>
      <Menu v-if="session.may('arrange') && !renaming" as="div" class="relative">
        <MenuButton
          class="text-muted opacity-0 focus-visible:opacity-100 group-hover:opacity-100"
          :aria-label="`What to do with ${branch.collection.name}`"
          ><Ellipsis :size="14"
        /></MenuButton>
        <MenuItems class="menu absolute right-0 top-5 w-60 font-normal text-ink">
          <MenuItem as="template"
            ><button class="menu-item" @click="emit('adopt', branch.collection.id)">
              New collection below it
            </button></MenuItem
          >
          <MenuItem as="template"><button class="menu-item" @click="startRename">Rename</button></MenuItem>
          <MenuItem v-if="branch.parent" as="template"
            ><button class="menu-item" @click="places.place(branch.collection.id, null, branch.placement)">
              Move to the top
            </button></MenuItem
          >
          <MenuItem
            v-for="other in places.flat
              .filter((c) => c.id !== branch.collection.id && c.id !== branch.parent)
              .slice(0, 8)"
            :key="other.path"
            as="template"
          >
            <button class="menu-item" @click="places.place(branch.collection.id, other.id)">
              <span class="truncate">Place under {{ other.path }} as well</span>
            </button>
          </MenuItem>
          <MenuItem as="template"
            ><button class="menu-item text-madder" @click="places.unplace(branch.placement)">
              {{ branch.shared ? 'Remove from here' : 'Remove the collection' }};
              {{ countSources(branch.collection.count) }} stay
            </button></MenuItem
          >
        </MenuItems>
      </Menu>
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
