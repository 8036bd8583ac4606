<script setup lang="ts">
/** What lies in a folder of saved searches, or at the top: folders first. */
import { ChevronDown, ChevronRight, Ellipsis, Lock, ShieldCheck } from '@lucide/vue';
import { useLocalStorage } from '@vueuse/core';
import { computed, nextTick, ref } from 'vue';
import type { SavedFolder, SavedSearch } from '@pandecta/contract';
import { formatNumber } from '@pandecta/core/wording';
import KitButton from '../../kit/KitButton.vue';
import KitMenu, { type MenuEntry } from '../../kit/KitMenu.vue';
import { usePlaces } from '../../places/store.ts';
import { useSession } from '../../session/store.ts';
import { useAsk } from '../ask.ts';
import { useSaved, type SavedBranch } from './store.ts';

const props = defineProps<{ branch: SavedBranch; depth: number }>();
const emit = defineEmits<{ edit: [SavedSearch] }>();
const saved = useSaved();
const ask = useAsk();
const places = usePlaces();
const session = useSession();
const closed = useLocalStorage<string[]>('closed folders', []);

/** Of very many the menus are made when they are met: two hundred at once take a second. */
const MANY = 40;
const few = computed(() => (saved.list?.searches.length ?? 0) <= MANY);
const awake = ref('');
async function wake(id: string, event: FocusEvent): Promise<void> {
  const line = (event.currentTarget as HTMLElement).closest('li');
  awake.value = id;
  await nextTick();
  line?.querySelector<HTMLElement>('[aria-haspopup]')?.focus();
}

const isOpen = (id: string): boolean => !closed.value.includes(id);
const toggle = (id: string): void =>
  void (closed.value = isOpen(id) ? [...closed.value, id] : closed.value.filter((c) => c !== id));
const mayAlter = (shared: boolean, folder: string | null): boolean =>
  !shared || (session.may('arrange') && (session.may('steer') || !isLocked(folder)));

/** In a folder that is locked, or in one that lies in such, stewards alone alter anything. */
const isLocked = (folder: string | null): boolean => {
  const of = saved.folders.find((f) => f.id === folder);
  return Boolean(of && (of.locked || isLocked(of.parent)));
};
function deedsOf(s: SavedSearch): MenuEntry[] {
  const watching = {
    name: s.watch ? 'Stop watching it' : 'Watch it: notify of new results',
    run: () => saved.watch(s.id, { watched: !s.watch }),
  };
  if (!mayAlter(s.shared, s.folder)) return [watching, { name: 'Keep a copy for yourself', run: () => copy(s) }];
  return [
    watching,
    { name: 'Name, purpose, folder…', run: () => emit('edit', s) },
    ...(session.may('arrange') ? [{ name: 'Make a collection of what it finds', run: () => collect(s) }] : []),
    ...(session.may('arrange') || !s.shared
      ? [
          {
            name: s.shared ? 'Keep for yourself alone' : 'Show to all members',
            run: () => saved.edit(s.id, { shared: !s.shared }),
          },
        ]
      : []),
    { name: 'Keep a copy', run: () => copy(s) },
    { name: 'Remove the search; its sources stay', warn: true, run: () => saved.remove(s.id) },
  ];
}
function deedsOfFolder(f: SavedFolder): MenuEntry[] {
  return [
    {
      name: f.shared ? 'Keep for yourself alone' : 'Show to all members',
      run: () => saved.editFolder(f.id, { shared: !f.shared }),
    },
    ...(f.shared && session.may('steer')
      ? [
          {
            name: f.locked ? 'Let contributors alter what lies in it' : 'Lock: stewards alone alter what lies in it',
            run: () => saved.editFolder(f.id, { locked: !f.locked }),
          },
        ]
      : []),
    ...saved.folders
      .filter((o) => o.id !== f.id && o.id !== f.parent)
      .slice(0, 8)
      .map((o) => ({ name: `Put into ${o.name}`, run: () => saved.editFolder(f.id, { parent: o.id }) })),
    ...(f.parent ? [{ name: 'Put at the top', run: () => saved.editFolder(f.id, { parent: null }) }] : []),
    { name: 'Remove the folder; its searches stay', warn: true, run: () => saved.removeFolder(f.id) },
  ];
}

const copy = ({ name, describes, keywords, ask: asked }: SavedSearch): Promise<unknown> =>
  saved.keep({ name: `${name} (copy)`, describes, keywords, ask: asked, shared: false });

async function collect(s: SavedSearch): Promise<void> {
  const made = await places.make(s.name);
  if (made?.id) await places.file({ matching: s.ask }, [made.id]);
}
const indent = (more = 0): { paddingLeft: string } => ({ paddingLeft: `${props.depth * 14 + more}px` });
</script>

<template>
  <ul>
    <li v-for="b in branch.folders" :key="b.folder!.id">
      <div class="group flex min-h-[26px] items-center gap-1 pr-1.5" :style="indent(2)">
        <KitButton
          look="bare"
          class="flex min-w-0 flex-1 items-center gap-1 text-left"
          :aria-expanded="isOpen(b.folder!.id)"
          @click="toggle(b.folder!.id)"
          ><ChevronDown v-if="isOpen(b.folder!.id)" :size="13" class="shrink-0 text-muted" /><ChevronRight
            v-else
            :size="13"
            class="shrink-0 text-muted" /><span class="truncate">{{ b.folder!.name }}</span
          ><ShieldCheck
            v-if="b.folder!.locked"
            :size="11"
            class="shrink-0 text-muted"
            aria-label="altered by stewards alone"
        /></KitButton>
        <KitMenu
          v-if="mayAlter(b.folder!.shared, b.folder!.id)"
          :entries="deedsOfFolder(b.folder!)"
          look="bare"
          at="bottom-end"
          class="at-hand text-muted"
          :name="`What to do with the folder ${b.folder!.name}`"
          ><Ellipsis :size="14"
        /></KitMenu>
      </div>
      <SavedFolderBranch v-if="isOpen(b.folder!.id)" :branch="b" :depth="depth + 1" @edit="emit('edit', $event)" />
    </li>
    <li
      v-for="s in branch.searches"
      :key="s.id"
      class="group flex min-h-[26px] items-center gap-1 rounded pr-1.5"
      :class="ask.saved === s.id && 'bg-verdtint font-semibold text-verdigris'"
      :style="indent(17)"
      @pointerenter="awake = s.id"
    >
      <KitButton
        look="bare"
        class="flex min-w-0 flex-1 items-center gap-1 text-left"
        :title="s.describes || s.name"
        :aria-current="ask.saved === s.id ? 'true' : undefined"
        @click="ask.open(s)"
        ><span class="truncate">{{ s.name }}</span
        ><Lock v-if="!s.shared" :size="11" class="shrink-0 text-muted" aria-label="yours alone"
      /></KitButton>
      <KitMenu
        v-if="few || awake === s.id"
        :entries="deedsOf(s)"
        look="bare"
        at="bottom-end"
        class="at-hand text-muted"
        :name="`What to do with the saved search ${s.name}`"
        ><Ellipsis :size="14"
      /></KitMenu>
      <KitButton
        v-else
        look="bare"
        class="at-hand text-muted"
        :name="`What to do with the saved search ${s.name}`"
        @focus="wake(s.id, $event)"
        ><Ellipsis :size="14"
      /></KitButton>
      <span v-if="s.watch && saved.fresh.get(s.id)" class="whitespace-nowrap text-fine text-verdigris"
        >{{ formatNumber(saved.fresh.get(s.id)) }} new</span
      >
      <span class="count">{{ formatNumber(saved.counts.get(s.id)) }}</span>
    </li>
  </ul>
</template>
