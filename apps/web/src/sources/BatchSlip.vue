<script setup lang="ts">
/** Several sources selected: what they share, and what may be done to all. */
import { X } from '@lucide/vue';
import { computed, ref } from 'vue';
import { MOST_BESIDE, MOST_CITED, routes, type Chosen } from '@pandecta/contract';
import { READING_STATES } from '@pandecta/core/changes';
import { EXPORT_FORMATS, EXPORT_INFO } from '@pandecta/core/formats';
import { PRINT_FORMATS, PRINT_INFO } from '@pandecta/core/printing';
import { formatNumber } from '@pandecta/core/wording';
import { ask as fetchReply } from '../api/client.ts';
import StyleChooser from '../citing/StyleChooser.vue';
import { useAsked } from '../data/asked.ts';
import { concerns } from '../data/live.ts';
import { MOST_IN_ONE, useCiting } from '../citing/store.ts';
import { usePlaces } from '../places/store.ts';
import { useSession } from '../session/store.ts';
import { useAsk } from './ask.ts';
import { useBatch } from './batch.ts';
import KitButton from '../kit/KitButton.vue';
import KitMenu from '../kit/KitMenu.vue';
import KitNotice from '../kit/KitNotice.vue';
import StarButton from './StarButton.vue';
import LabelMark from './assessments/LabelMark.vue';
import LabelMenu from './assessments/LabelMenu.vue';
import { NOT_RATED, RATINGS } from './assessments/ratings.ts';
import RecheckBox from './assessments/RecheckBox.vue';
import { useAssessments } from './assessments/store.ts';
import TagInput from './TagInput.vue';

const props = defineProps<{
  chosen: Chosen;
  count: number;
  /** Whether there is so little room that it may be one line. */
  folds?: boolean;
}>();
const emit = defineEmits<{ file: []; casing: []; altering: []; cite: []; fold: [] }>();
const citing = useCiting();
const batch = useBatch();
const places = usePlaces();
const session = useSession();
const assessments = useAssessments();
const ask = useAsk();
const tagging = ref(false);
const tagInput = ref<InstanceType<typeof TagInput>>();
const { data: sum, error } = useAsked({
  question: () => props.chosen,
  fetch: (body, signal) => fetchReply(routes.sources.summary, { body, signal }),
  concerns: (touched) => concerns(touched, ['source', 'tag', 'collection', 'label']),
});

const n = computed(() => props.count);
const share = (count: number): string => (count === n.value ? 'all' : String(count));

const states = computed(() => [
  ...READING_STATES.map((s) => ({ name: s, run: () => batch.reading(props.chosen, s) })),
  { name: 'none', run: () => batch.reading(props.chosen, null) },
]);
const ratings = computed(() => [
  ...RATINGS.map(({ rating, name }) => ({ name, run: () => assessments.rate(props.chosen, rating) })),
  { name: NOT_RATED, run: () => assessments.rate(props.chosen, null) },
]);
/** The labels all of them bear. */
const borne = computed(() => (sum.value?.labels ?? []).filter((l) => l.count === n.value).map((l) => l.id));
const formats = computed(() =>
  EXPORT_FORMATS.map((f) => ({ name: EXPORT_INFO[f].name, run: () => batch.exportAs(props.chosen, props.count, f) })),
);

const prints = computed(() =>
  PRINT_FORMATS.map((f) => ({ name: PRINT_INFO[f].name, run: () => citing.print(props.chosen, f) })),
);

/** A few that were chosen one by one can be laid beside each other and merged. */
const mergeable = computed(() =>
  props.chosen.ids && n.value >= 2 && n.value <= MOST_BESIDE ? props.chosen.ids : undefined,
);

function startTagging(): void {
  tagging.value = true;
  tagInput.value?.focus();
}
defineExpose({ startTagging });
</script>

<template>
  <section class="h-full overflow-auto bg-card px-[18px] py-2.5" aria-label="Batch slip">
    <div class="flex flex-wrap items-center gap-1.5">
      <h3 class="mr-1 font-serif text-read font-semibold">{{ formatNumber(n) }} sources</h3>
      <template v-if="session.may('edit') && ask.scope !== 'bin'">
        <KitButton @click="emit('file')">File to…</KitButton>
        <KitButton @click="startTagging">Tag…</KitButton>
        <KitMenu :entries="states">Reading</KitMenu>
        <LabelMenu :chosen="chosen" :borne="borne">Label</LabelMenu>
        <KitMenu :entries="ratings">Rating</KitMenu>
        <RecheckBox :chosen="chosen" look="plain" />
        <KitButton @click="emit('altering')">Fields…</KitButton>
        <KitButton @click="emit('casing')">Case of titles…</KitButton>
        <KitButton v-if="mergeable" :to="`/check/duplicates?these=${mergeable.join(',')}`"
          >Compare and merge…</KitButton
        >
      </template>
      <StarButton v-if="sum && ask.scope !== 'bin'" :chosen="chosen" :starred="sum.starred === n" />
      <KitButton
        :disabled="n > MOST_CITED"
        :title="n > MOST_CITED ? `At most ${MOST_CITED} at once` : undefined"
        @click="citing.copyCited(chosen, 'bibliography')"
        >Copy bibliography</KitButton
      >
      <KitButton :disabled="n > MOST_CITED" @click="citing.copyCited(chosen, 'citation')">Copy citation</KitButton>
      <KitButton v-if="n <= MOST_IN_ONE" @click="emit('cite')">Cite with pages…</KitButton>
      <KitMenu v-if="n <= MOST_CITED" :entries="prints">Save bibliography</KitMenu>
      <KitMenu :entries="formats">Export</KitMenu>
      <KitButton v-if="session.may('edit') && ask.scope === 'bin'" look="main" @click="batch.restore(chosen)"
        >Restore</KitButton
      >
      <KitButton v-else-if="session.may('edit')" @click="batch.toBin(chosen)">To the bin</KitButton>
      <span class="ml-auto flex items-center gap-1.5"
        ><StyleChooser /><KitButton v-if="folds" @click="emit('fold')">Fold the slip</KitButton></span
      >
    </div>
    <div v-if="tagging" class="mt-2 w-64">
      <TagInput ref="tagInput" @add="batch.tag(chosen, $event)" @done="tagging = false" />
    </div>
    <KitNotice v-if="error" tone="bad" class="mt-3">{{ error }}</KitNotice>
    <div v-if="sum" class="mt-3 grid grid-cols-4 gap-6 text-fine">
      <div>
        <h4 class="heading mb-1">Kinds</h4>
        <p v-for="k in sum.kinds.slice(0, 7)" :key="k.name" class="flex justify-between">
          {{ k.name }}<span class="count">{{ share(k.count) }}</span>
        </p>
      </div>
      <div>
        <h4 class="heading mb-1">Tags and subject terms</h4>
        <p v-for="t in sum.tags.slice(0, 8)" :key="t.id" class="group flex justify-between gap-2">
          <span :class="t.subject ? 'term' : 'tag'">{{ t.name }}</span><span class="flex gap-1.5"
            ><KitButton
              v-if="session.may('edit')"
              look="bare"
              class="hidden text-muted hover:text-madder group-focus-within:inline group-hover:inline"
              :name="`Take ${t.name} from all`"
              @click="batch.tag(chosen, t.name, false, t.subject)"
              ><X :size="12" /></KitButton
            ><span class="count">{{ share(t.count) }}</span></span
          >
        </p>
        <p v-if="!sum.tags.length" class="text-muted">None</p>
      </div>
      <div>
        <h4 class="heading mb-1">Filed under</h4>
        <p v-for="c in sum.collections.slice(0, 8)" :key="c.id" class="group flex justify-between gap-2">
          <span class="truncate">{{ c.path }}</span><span class="flex gap-1.5"
            ><KitButton
              v-if="session.may('edit')"
              look="bare"
              class="hidden text-muted hover:text-madder group-focus-within:inline group-hover:inline"
              :name="`Remove all from ${c.path}`"
              @click="places.file(chosen, [c.id], { present: false })"
              ><X :size="12" /></KitButton
            ><span class="count">{{ share(c.count) }}</span></span
          >
        </p>
        <p v-if="!sum.collections.length" class="text-muted">In no collection</p>
      </div>
      <div>
        <h4 class="heading mb-1">Of these</h4>
        <p class="flex justify-between">
          with a file<span class="count">{{ share(sum.withFile) }}</span>
        </p>
        <p v-if="sum.starred" class="flex justify-between">
          starred<span class="count">{{ share(sum.starred) }}</span>
        </p>
        <p v-for="l in sum.labels" :key="l.id" class="flex justify-between">
          <LabelMark :label="l" named /><span class="count">{{ share(l.count) }}</span>
        </p>
        <p v-for="r in sum.reading" :key="r.state" class="flex justify-between">
          {{ r.state === 'none' ? 'no reading state' : r.state }}<span class="count">{{ share(r.count) }}</span>
        </p>
        <p v-if="sum.yearFrom" class="flex justify-between">
          years<span class="count">{{ sum.yearFrom }}–{{ sum.yearTo }}</span>
        </p>
      </div>
    </div>
  </section>
</template>
