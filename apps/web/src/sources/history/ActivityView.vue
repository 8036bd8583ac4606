<script setup lang="ts">
/** The history of the workspace: who did what and when, what it touched, and the way to take it back. */
import { refDebounced } from '@vueuse/core';
import { computed, ref, shallowRef, watch } from 'vue';
import { routes, type HistoryEntry, type TouchedByChange } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import { formatDate } from '@pandecta/core/wording';
import { useChanges } from '../../act/changes.ts';
import { ask } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import EmptyState from '../../kit/EmptyState.vue';
import KitButton from '../../kit/KitButton.vue';
import KitField from '../../kit/KitField.vue';
import KitNotice from '../../kit/KitNotice.vue';
import KitSelect from '../../kit/KitSelect.vue';
import TimeText from '../../kit/TimeText.vue';
import { useSession } from '../../session/store.ts';

const changes = useChanges();
const session = useSession();
const by = ref('');
const typed = ref('');
const words = refDebounced(typed, 250);
/** What stands before the first page, fetched on request. */
const earlier = shallowRef<HistoryEntry[]>([]);
const ended = ref(false);
const touched = ref<Record<string, TouchedByChange>>({});
/** Members met so far, to choose from. */
const people = ref(new Map<string, string>());

const question = computed(() => ({
  ...(by.value && { by: by.value }),
  ...(words.value.trim() && { words: words.value.trim() }),
}));
const { data: first, error } = useAsked({
  question: () => question.value,
  fetch: async (query, signal) => (await ask(routes.changes.activity, { query, signal })).entries,
  concerns: () => true,
});
watch(question, () => ((earlier.value = []), (ended.value = false)));
watch(first, (all) => {
  for (const e of all ?? []) people.value.set(e.byId, e.by);
});
const entries = computed(() => [...(first.value ?? []), ...earlier.value]);
const members = computed(() => [
  { value: '', name: 'Everyone' },
  ...[...people.value].map(([value, name]) => ({ value, name })).sort((a, b) => a.name.localeCompare(b.name)),
]);
/** Under the day they were made. */
const days = computed(() => {
  const out = new Map<string, HistoryEntry[]>();
  for (const e of entries.value) {
    const day = formatDate(e.at, 'weekday');
    out.set(day, [...(out.get(day) ?? []), e]);
  }
  return [...out];
});

async function more(): Promise<void> {
  const last = entries.value.at(-1);
  if (!last) return;
  const found = await changes.attempt(() =>
    ask(routes.changes.activity, { query: { ...question.value, before: last.id } }),
  );
  if (!found) return;
  earlier.value = [...earlier.value, ...found.entries];
  ended.value = !found.entries.length;
}
async function look(id: string): Promise<void> {
  if (touched.value[id]) {
    const { [id]: _closed, ...rest } = touched.value;
    touched.value = rest;
    return;
  }
  const found = await changes.attempt(() => ask(routes.changes.touched, { change: id }));
  if (found) touched.value = { ...touched.value, [id]: found };
}
</script>

<template>
  <div class="h-full overflow-auto">
    <div class="mx-auto max-w-[60rem] px-6 py-5">
      <div class="flex flex-wrap items-center gap-3">
        <h1 class="font-serif text-title font-semibold">History of the workspace</h1>
        <KitSelect v-model="by" class="ml-auto w-44" label="Whose changes" :options="members" />
        <KitField v-model="typed" class="w-56" label="Words in what was done" placeholder="Find" />
        <KitButton look="quiet" to="/sources">Back to the sources</KitButton>
      </div>
      <KitNotice v-if="error" tone="bad" class="mt-3">{{ error }}</KitNotice>
      <p v-else-if="!first" class="mt-4 text-muted">Reading the history…</p>
      <EmptyState v-else-if="!entries.length" title="No matching changes">{{
        by || words ? 'Remove some of the filters.' : 'Every change to the workspace will stand here.'
      }}</EmptyState>
      <section v-for="[day, those] in days" :key="day" class="mt-5" :aria-label="day">
        <h2 class="heading">{{ day }}</h2>
        <ol>
          <li v-for="e in those" :key="e.id" class="border-b border-line py-1.5">
            <div class="flex items-baseline gap-3">
              <span class="count w-12 shrink-0"><TimeText :at="e.at" to="time" /></span>
              <span class="min-w-0 flex-1"
                ><span :class="e.undone && 'text-muted line-through'">{{ e.says }}</span
                ><template v-if="e.on"
                  >:
                  <RouterLink
                    class="font-serif hover:underline"
                    :class="e.undone && 'text-muted'"
                    :to="`/sources?at=${e.on.id}`"
                    >{{ e.on.title }}</RouterLink
                  ></template
                ><span class="text-fine text-muted">
                  · {{ e.by }}<template v-if="e.undone"> · undone</template></span
                ></span
              >
              <KitButton look="quiet" :aria-expanded="Boolean(touched[e.id])" @click="look(e.id)"
                >What it touched</KitButton
              >
              <KitButton
                v-if="session.may('own') && !e.undone && !e.undoes && !touched[e.id]?.stays"
                look="word"
                @click="changes.undoOne(e.id)"
                >Undo</KitButton
              >
            </div>
            <div v-if="touched[e.id]" class="mb-1 ml-[60px] text-fine">
              <p v-if="touched[e.id]!.stays && !e.undone" class="text-ochre">{{ touched[e.id]!.stays }}</p>
              <p v-if="!touched[e.id]!.count" class="text-muted">No source</p>
              <ul v-else>
                <li v-for="s in touched[e.id]!.sources" :key="s.id" class="truncate">
                  <RouterLink class="font-serif hover:underline" :to="`/sources?at=${s.id}`">{{ s.title }}</RouterLink>
                </li>
                <li v-if="touched[e.id]!.count > touched[e.id]!.sources.length" class="text-muted">
                  and {{ countSources(touched[e.id]!.count - touched[e.id]!.sources.length) }} more
                </li>
              </ul>
            </div>
          </li>
        </ol>
      </section>
      <KitButton v-if="entries.length && !ended" class="mt-4" @click="more">Earlier</KitButton>
    </div>
  </div>
</template>
