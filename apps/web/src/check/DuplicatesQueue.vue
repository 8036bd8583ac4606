<script setup lang="ts">
/** Groups of sources that may be one work, the surest first; those that are certain can be merged at one go, after a look. */
import { computed, ref, watch } from 'vue';
import type { DuplicateGroup } from '@pandecta/contract';
import { counted } from '@pandecta/core/wording';
import KitButton from '../kit/KitButton.vue';
import KitCheck from '../kit/KitCheck.vue';
import { turned } from '../kit/words.ts';
import { useSession } from '../session/store.ts';
import { useCheck } from './store.ts';

const check = useCheck();
const session = useSession();
const listing = ref(false);
const unticked = ref(new Set<string>());
watch(
  () => check.certain.length,
  (n) => n || (listing.value = false),
);
const chosen = computed(() => check.certain.filter((g) => !unticked.value.has(g.id)));
function tick({ id }: DuplicateGroup): void {
  unticked.value = turned(unticked.value, id);
}
async function mergeThem(): Promise<void> {
  listing.value = false;
  await check.mergeCertain(chosen.value);
}
const sure = (g: DuplicateGroup): string => (g.versions ? 'versions of one work?' : g.class);
</script>

<template>
  <template v-if="check.certain.length && session.may('edit')">
    <KitButton v-if="!listing" look="main" class="w-full" @click="listing = true">{{
      check.certain.length === 1 ? 'Merge the certain one…' : `Merge the ${check.certain.length} certain ones…`
    }}</KitButton>
    <div
      v-else
      class="mb-2 rounded-md border border-line bg-card p-2.5"
      role="group"
      aria-label="Those that are certain"
    >
      <p class="text-fine text-muted">The most complete record of each group is kept. Untick groups to check first.</p>
      <ul class="my-1.5 max-h-64 overflow-auto">
        <li v-for="g in check.certain" :key="g.id" class="flex gap-2 py-1">
          <KitCheck class="mt-0.5 shrink-0" :checked="!unticked.has(g.id)" :label="g.title" @check="tick(g)" />
          <span class="text-fine"
            >{{ g.title }} <span class="text-muted">{{ g.members.length }}</span></span
          >
        </li>
      </ul>
      <div class="flex gap-2">
        <KitButton look="main" :disabled="!chosen.length" @click="mergeThem"
          >Merge {{ counted(chosen.length, 'group') }}</KitButton
        >
        <KitButton @click="listing = false">Not now</KitButton>
      </div>
    </div>
  </template>
  <ul class="mt-2" aria-label="Groups">
    <li v-for="g in check.groups" :key="g.id">
      <KitButton
        look="bare"
        class="block w-full rounded-md border px-2 py-1.5 text-left"
        :class="check.group?.id === g.id ? 'border-line bg-card' : 'border-transparent hover:bg-card'"
        :aria-current="check.group?.id === g.id ? 'true' : undefined"
        @click="check.at = g.id"
      >
        <span class="line-clamp-2 font-serif font-semibold leading-tight">{{ g.title }}</span>
        <span class="block text-fine text-muted"
          >{{ g.members.length }} records · {{ sure(g)
          }}<template v-if="check.later.has(g.id)"> · put off</template></span
        >
        <span class="mt-1 block h-1 rounded bg-line" aria-hidden="true"
          ><span
            class="block h-1 rounded"
            :class="g.class === 'certain' ? 'bg-verdigris' : 'bg-ochre'"
            :style="{ width: `${Math.round(g.probability * 100)}%` }"
        /></span>
      </KitButton>
    </li>
  </ul>
  <p v-if="check.duplicates?.behind" class="mt-3 text-fine text-muted" role="status">
    {{ counted(check.duplicates.behind, 'source') }} still to be compared
  </p>
  <p class="mt-4"><KitButton to="/check/together" class="w-full">Bring two collections together…</KitButton></p>
  <p v-if="session.may('edit')" class="mt-2">
    <KitButton class="w-full" @click="check.compareAgain">Compare all sources once more</KitButton>
  </p>
</template>
