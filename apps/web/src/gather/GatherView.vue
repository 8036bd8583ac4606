<script setup lang="ts">
/** Gather: bring in on the left, what waits in the middle, the chosen one on the right. */
import { useLocalStorage, useMediaQuery } from '@vueuse/core';
import { computed, defineAsyncComponent, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useDeeds } from '../act/commands.ts';
import EmptyState from '../kit/EmptyState.vue';
import KitButton from '../kit/KitButton.vue';
import SplitHandle from '../kit/SplitHandle.vue';
import { useSession } from '../session/store.ts';
import ByHand from './ByHand.vue';
import DestinationBox from './DestinationBox.vue';
import { useDestination } from './destination.ts';
import DoorBox from './DoorBox.vue';
import FoundList from './FoundList.vue';
import FoundSlip from './FoundSlip.vue';
import GatheringReport from './GatheringReport.vue';
import GatherSetup from './GatherSetup.vue';
import GatheringsList from './GatheringsList.vue';
import IntakeList from './IntakeList.vue';
import IntakeSlip from './IntakeSlip.vue';
import { typed } from './door.ts';
import FromBrowser from './FromBrowser.vue';
import { useIntake } from './intake.ts';
import { useOutside } from './outside.ts';
import SearchOutside from './SearchOutside.vue';

/** With what draws its picture: fetched when one looks at it. */
const SearchLog = defineAsyncComponent(() => import('./SearchLog.vue'));
const route = useRoute();
const router = useRouter();
const session = useSession();
const destination = useDestination();
const intake = useIntake();
const outside = useOutside();
const left = useLocalStorage('bring in width', 300);
const right = useLocalStorage('intake slip width', 340);
const wide = useMediaQuery('(min-width: 1024px)');
/** Below that width the panes lie over the list, one at a time, when they are asked for. */
const over = ref<'left' | 'right' | null>(null);
const isLeft = computed(() => wide.value || over.value === 'left' || !mayGather.value);
const isRight = computed(() => wide.value || over.value === 'right');
const hasRight = computed(() => (showing.value === 'intake' ? intake.total > 0 : showing.value === 'found'));
const toggle = (side: 'left' | 'right'): void => void (over.value = over.value === side ? null : side);
const door = useTemplateRef<{ focus(): void }>('door');
const slip = useTemplateRef<{ decide(): void }>('slip');
const mending = ref(false);
watch(mending, (now) => {
  intake.held = now ? intake.cursor : null;
  if (now) over.value = 'right';
});
const mayGather = computed(() => session.may('gather'));
const showing = computed(() => {
  if (route.name === 'report' || !mayGather.value) return 'report';
  return route.name === 'search' ? 'found' : route.name === 'log' ? 'log' : 'intake';
});
const work = computed(() => (outside.cursor ? outside.lineOf(outside.cursor) : undefined));

/** `?type` asks for the box, `?link` brings an address into it, `?into` a collection into where things go. */
async function heed(): Promise<void> {
  if (typeof route.query.into === 'string') destination.addCollection(route.query.into);
  const { link } = route.query;
  if (typeof link === 'string') typed.value = link;
  if ('type' in route.query || link) {
    over.value = 'left';
    await nextTick();
    door.value?.focus();
    await router.replace({ path: '/gather' });
  }
}
onMounted(heed);
watch(() => route.query, heed);
useDeeds({
  'bring-in': () => {
    over.value = 'left';
    if (route.name === 'gather') void nextTick(() => door.value?.focus());
    else void router.push('/gather?type');
  },
});
</script>

<template>
  <div class="relative flex h-full" :class="!wide && mayGather && 'pt-9'">
    <div
      v-if="!wide && mayGather"
      class="absolute inset-x-0 top-0 flex h-9 items-center gap-2 border-b border-line bg-panel px-4"
    >
      <KitButton :aria-pressed="over === 'left'" @click="toggle('left')">Bring in</KitButton>
      <KitButton v-if="hasRight" class="ml-auto" :aria-pressed="over === 'right'" @click="toggle('right')"
        >The chosen one</KitButton
      >
    </div>
    <aside
      v-show="isLeft"
      class="pane shrink-0 px-4 py-4"
      :class="!wide && mayGather && 'absolute bottom-0 left-0 top-9 z-20 shadow-xl'"
      :style="{ width: `${left}px` }"
      aria-label="Bring in"
    >
      <template v-if="mayGather">
        <h1 class="mb-2 font-serif text-title font-semibold">Bring in</h1>
        <DoorBox ref="door"><DestinationBox class="mt-3" /></DoorBox>
        <SearchOutside class="mt-6" />
        <ByHand class="mt-6" />
        <FromBrowser class="mt-4" />
        <GatherSetup v-if="session.may('steer')" class="mt-2.5" />
      </template>
      <p v-else class="text-muted">As a reader you see what was brought in. Contributors bring in sources.</p>
      <GatheringsList class="mt-6" />
    </aside>
    <SplitHandle v-if="wide" v-model="left" :min="240" :max="480" side="left" label="Width of Bring in" />
    <template v-if="showing === 'intake'">
      <IntakeList class="min-w-0" @decide="slip?.decide()" @mend="mending = true" />
      <template v-if="intake.total && isRight">
        <SplitHandle v-if="wide" v-model="right" :min="280" :max="560" side="right" label="Width of the chosen one" />
        <div
          class="min-w-0 shrink-0"
          :class="!wide && 'absolute bottom-0 right-0 top-9 z-20 shadow-xl'"
          :style="{ width: `${right}px` }"
        >
          <IntakeSlip v-if="intake.cursor" :id="intake.cursor" ref="slip" v-model:mending="mending" />
          <EmptyState v-else>Choose a record to see its details and whether it is here already.</EmptyState>
        </div>
      </template>
    </template>
    <template v-else-if="showing === 'found'">
      <FoundList class="min-w-0" />
      <SplitHandle v-if="wide" v-model="right" :min="280" :max="560" side="right" label="Width of the chosen one" />
      <div
        v-if="isRight"
        class="min-w-0 shrink-0"
        :class="!wide && 'absolute bottom-0 right-0 top-9 z-20 bg-card shadow-xl'"
        :style="{ width: `${right}px` }"
      >
        <FoundSlip v-if="work" :work="work" />
        <EmptyState v-else>Choose one to read its abstract and where it was found.</EmptyState>
      </div>
    </template>
    <SearchLog v-else-if="showing === 'log'" class="min-w-0 flex-1" />
    <GatheringReport v-else class="min-w-0 flex-1" />
  </div>
</template>
