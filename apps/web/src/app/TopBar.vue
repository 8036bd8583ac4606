<script setup lang="ts">
import { ChevronDown } from '@lucide/vue';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { formatNumber } from '@pandecta/core/wording';
import KitMenu from '../kit/KitMenu.vue';
import { usePlaces } from '../places/store.ts';
import { useCheck } from '../check/index.ts';
import { useNotesCount } from '../notes/index.ts';
import { useTabs } from '../read/tabs.ts';
import { useSession } from '../session/store.ts';
import { useAsk } from '../sources/index.ts';
import JobsMenu from './JobsMenu.vue';
import NoticeLine from './NoticeLine.vue';
import UnsentMenu from './UnsentMenu.vue';

const emit = defineEmits<{ keys: []; commands: []; password: []; signOut: [] }>();
const session = useSession();
const ask = useAsk();
const places = usePlaces();
const tabs = useTabs();
const check = useCheck();
const notes = useNotesCount();
const route = useRoute();

const stages = computed(() => [
  { name: 'Gather', to: '/gather', count: session.may('gather') ? places.reply?.intake || undefined : undefined },
  { name: 'Sources', to: ask.address, count: places.reply?.total },
  { name: 'Check', to: '/check', count: check.count },
  {
    name: 'Read',
    to: tabs.current ? `/read/${tabs.current.source}/${tabs.current.file}` : '/read',
    count: tabs.open.length || undefined,
  },
  { name: 'Notes', to: '/notes', count: notes.total },
]);
const workspaces = computed(() =>
  (session.user?.workspaces ?? []).map((w) => ({ name: w.name, hint: w.role, run: () => session.choose(w.id) })),
);
const account = [
  { name: 'Commands and sources', hint: 'Ctrl K', run: () => emit('commands') },
  { name: 'Keys', hint: '?', run: () => emit('keys') },
  { name: 'The HTTP API', href: '/api' },
  { name: 'Change your password', run: () => emit('password') },
  { name: 'Sign out', run: () => emit('signOut') },
];
const isOn = (to: string): boolean => route.path.split('/')[1] === to.split(/[/?]/)[1];
</script>

<template>
  <header class="flex h-[46px] shrink-0 items-center bg-top px-4 text-toptext">
    <RouterLink to="/sources" class="font-serif text-title font-semibold tracking-[.2px] text-[#f4f1e9]"
      >Pandecta<span class="text-[#8fc7bf]">.</span></RouterLink
    >
    <div class="ml-2 min-w-10 border-l border-topline pl-2 md:min-w-16 lg:ml-4 lg:pl-4">
      <KitMenu :entries="workspaces" look="bare" class="flex max-w-full items-center gap-1 text-fine"
        ><span class="truncate">{{ session.workspace?.name }}</span
        ><ChevronDown :size="13" aria-hidden="true" /><span class="sr-only">Change the workspace</span></KitMenu
      >
    </div>
    <nav class="ml-1 flex md:ml-2 h-full shrink-0 gap-0.5 lg:ml-7" aria-label="Stages">
      <RouterLink
        v-for="s in stages"
        :key="s.name"
        :to="s.to"
        :aria-current="isOn(s.to) ? 'page' : undefined"
        class="flex items-center gap-1 px-1.5 md:gap-[7px] md:px-2.5 lg:px-[13px]"
        :class="isOn(s.to) ? 'mt-[7px] rounded-t-md bg-paper font-semibold text-ink' : 'hover:text-white'"
      >
        {{ s.name }}
        <span
          v-if="s.count !== undefined"
          class="rounded-lg px-1.5 font-mono text-label font-normal"
          :class="isOn(s.to) ? 'bg-verdtint text-verdigris' : 'bg-[#3b4a52] text-[#e9e6dd]'"
          >{{ formatNumber(s.count) }}</span
        >
      </RouterLink>
    </nav>
    <div class="ml-auto flex min-w-0 items-center gap-3 pl-2 text-fine lg:pl-4">
      <NoticeLine />
      <UnsentMenu />
      <JobsMenu />
      <KitMenu
        :entries="account"
        look="bare"
        at="bottom-end"
        class="grid h-[26px] w-[26px] shrink-0 place-items-center rounded-full bg-[#8fc7bf] text-label font-bold text-[#1f2c33]"
        ><span aria-hidden="true">{{ session.initials }}</span
        ><span class="sr-only">{{ session.user?.name }}: account</span
        ><template #top
          ><p class="mb-1 border-b border-line px-3 pb-2 pt-1">
            <span class="block font-semibold">{{ session.user?.name }}</span><span class="text-muted"
              >{{ session.user?.email }} · {{ session.workspace?.role }}</span
            >
          </p></template
        ></KitMenu
      >
    </div>
  </header>
</template>
