<script setup lang="ts">
/** The one that is chosen of the intake: beside what may be the same, as it came, as it will print, and what is to be done. */
import { computed, ref, watch } from 'vue';
import { routes } from '@pandecta/contract';
import { LACKS } from '@pandecta/core/intake';
import {
  dateShort,
  filledFields,
  KINDS,
  nameSpoken,
  variableInWords,
  variableLabel,
  variablesOf,
  withoutMarkup,
  type DateValue,
  type Kind,
  type Name,
} from '@pandecta/core/source';
import { counted } from '@pandecta/core/wording';
import { ask } from '../api/client.ts';
import { useCiting } from '../citing/store.ts';
import StyleChooser from '../citing/StyleChooser.vue';
import { useAsked } from '../data/asked.ts';
import { concerns } from '../data/live.ts';
import KitButton from '../kit/KitButton.vue';
import KitNotice from '../kit/KitNotice.vue';
import { useSession } from '../session/store.ts';
import { FileTo, originInWords, PlacesBlock, RecordEditor, SourceFindings } from '../sources/index.ts';
import AsItCame from './AsItCame.vue';
import BothRecords from './BothRecords.vue';
import { useIntake } from './intake.ts';
import ListedWorks from './ListedWorks.vue';
import PrintedCitation from './PrintedCitation.vue';

const props = defineProps<{ id: string }>();
const mending = defineModel<boolean>('mending', { required: true });
const intake = useIntake();
const citing = useCiting();
const session = useSession();
/** Which of those that may be the same is looked at. */
const at = ref(0);
watch(
  () => props.id,
  () => ((at.value = 0), (mending.value = false)),
);

const { data: detail, error } = useAsked({
  question: () => props.id,
  fetch: (id, signal) => ask(routes.intake.one, { source: id, signal }),
  concerns: (touched) => concerns(touched, ['source', 'collection', 'tag']),
});
const { data: cited } = useAsked({
  question: () => ({ id: props.id, style: citing.style.id, locale: citing.locale }),
  fetch: ({ id }, signal) => citing.cite({ ids: [id] }, false, signal),
  concerns: (touched, { id }) => concerns(touched, ['source'], id),
});
const one = computed(() => (detail.value?.source.id === props.id ? detail.value : null));
const match = computed(() => one.value?.here[at.value] ?? one.value?.here[0]);
/** Another that waits and is the same work. */
const twin = computed(() => one.value?.waiting[0]);
const filing = ref(false);
const tagging = ref(false);
const hasPdf = computed(() => one.value?.source.files.some((f) => /pdf/.test(f.mediaType)));
const title = computed(() => withoutMarkup(one.value?.source.record.title ?? 'Untitled'));

const joining = computed(() => {
  const { source } = one.value!;
  const adds = [...source.places.map((p) => p.path), ...source.tags.filter((t) => !t.subject).map((t) => t.name)];
  const files = source.files.length;
  const fills = match.value!.fills.map((f) => variableInWords(f));
  const parts = [
    ...(adds.length ? [`adds ${adds.join(', ')}`] : []),
    ...(files ? [`adds ${files === 1 ? 'its file' : counted(files, 'file')}`] : []),
    ...(fills.length ? [`fills ${fills.length > 4 ? counted(fills.length, 'field') : fills.join(', ')}`] : []),
  ];
  if (!parts.length) return 'It has nothing the source here is missing: joining only removes it from the intake.';
  return `Joining ${parts.join(', and ')}; it overwrites nothing.`;
});

const howOf = (field: string): string => {
  const how = one.value!.source.provenance[field];
  return how ? originInWords(how) : '';
};
/** The fields by how they are known, each group in the order of a catalogue card; the largest leads. */
const known = computed(() => {
  const { record } = one.value!.source;
  const order = ['type', 'title', 'author', 'editor', 'issued', ...variablesOf(record.type)] as string[];
  const place = (f: string): number => (order.includes(f) ? order.indexOf(f) : order.length);
  const groups = new Map<string, { field: string; text: string }[]>();
  for (const f of filledFields(record).sort((x, y) => place(x) - place(y))) {
    const text = textOf(f, (record as Record<string, unknown>)[f]);
    if (f === 'abstract' || !text) continue;
    const how = howOf(f);
    groups.set(how, [...(groups.get(how) ?? []), { field: f, text }]);
  }
  return [...groups].map(([how, fields]) => ({ how, fields })).sort((x, y) => y.fields.length - x.fields.length);
});
function textOf(field: string, value: unknown): string {
  if (field === 'type') return KINDS[value as Kind].name;
  if (Array.isArray(value)) return (value as Name[]).map(nameSpoken).join(', ');
  return typeof value === 'object' ? dateShort(value as DateValue) : withoutMarkup(String(value));
}
const where = computed(() => {
  const o = one.value!.origin;
  return [o.database, o.accession && `no. ${o.accession}`, o.query && `found by “${o.query}”`, o.address]
    .filter(Boolean)
    .join(' · ');
});

function decide(): void {
  if (!one.value || mending.value) return;
  if (match.value && match.value.verdict !== 'perhaps') void intake.join(props.id, match.value.id);
  else void intake.takeIn({ ids: [props.id] });
}
defineExpose({ decide });
</script>

<template>
  <aside class="@container flex h-full flex-col bg-card" aria-label="Chosen">
    <div class="min-h-0 flex-1 overflow-auto px-[18px] py-3">
      <KitNotice v-if="error && !one" tone="plain">{{ error }}</KitNotice>
      <p v-else-if="!one" class="text-muted">Fetching the record…</p>
      <template v-else-if="mending">
        <!-- What it is mended by, and what comes of it, stay in sight. -->
        <div
          class="sticky -top-3 z-10 -mx-[18px] -mt-3 mb-3 max-h-[40vh] overflow-auto border-b border-line bg-card px-[18px] pb-2 pt-3"
        >
          <p v-if="one.origin.trouble" class="mb-1.5 text-ochre">{{ one.origin.trouble }}</p>
          <template v-if="one.origin.came">
            <h2 class="heading mb-1">As it came</h2>
            <AsItCame
              :text="one.origin.came"
              :spans="one.origin.spans"
              :may="intake.scope === 'intake'"
              @respan="(change) => intake.respan(id, change)"
            />
          </template>
          <h2 class="heading mb-1 mt-2">As it will print</h2>
          <PrintedCitation :cited="cited" />
        </div>
        <RecordEditor :source="one.source" @close="mending = false" />
      </template>
      <template v-else>
        <template v-if="match">
          <h2 class="heading mb-1.5 flex justify-between">
            Here already?<b class="text-ochre">{{ match.verdict }}</b>
          </h2>
          <BothRecords :incoming="one.source.record" :match="match" />
          <p class="mt-1.5 text-fine text-muted">
            <template v-for="(r, i) in match.reasons" :key="r.says"
              ><template v-if="i">, </template><span :class="!r.for && 'text-madder'">{{ r.says }}</span></template
            >.
            <RouterLink class="text-verdigris underline underline-offset-2" :to="`/sources?at=${match.id}`"
              >Show it in Sources</RouterLink
            >
          </p>
          <p v-if="one.here.length > 1" class="mt-1 text-fine">
            <KitButton look="quiet" @click="at = (at + 1) % one.here.length"
              >{{ at + 1 }} of {{ one.here.length }} that may be the same: show the next</KitButton
            >
          </p>
          <p class="mt-2">{{ joining }}</p>
        </template>
        <template v-else>
          <h2 class="font-serif text-read font-semibold leading-tight">{{ title }}</h2>
          <p v-if="!twin" class="mt-0.5 text-fine text-muted">New: nothing here is like it.</p>
        </template>
        <p v-if="twin" class="mt-2 text-ochre">
          Waits twice: “{{ withoutMarkup(twin.record.title ?? 'Untitled') }}” is {{ twin.verdict }} the same work.
          <KitButton look="word" @click="intake.show(twin.id)">Show it</KitButton>
        </p>
        <p v-if="one.origin.trouble" class="mt-2 text-ochre">{{ one.origin.trouble }}</p>
        <p v-if="one.lacks.length" class="mt-2 text-ochre">Missing: {{ one.lacks.map((l) => LACKS[l]).join(' · ') }}</p>
        <p v-if="one.guessed.length" class="mt-2 text-ochre">
          Guessed, so look: {{ one.guessed.map((f) => variableInWords(f)).join(', ') }}
        </p>
        <SourceFindings :id="id" class="mt-4" />
        <template v-if="one.origin.came">
          <h2 class="heading mb-1 mt-4">As it came</h2>
          <AsItCame
            :text="one.origin.came"
            :spans="one.origin.spans"
            :may="intake.scope === 'intake'"
            @respan="(change) => intake.respan(id, change)"
          />
        </template>
        <ListedWorks
          v-if="one.origin.items.length && intake.scope === 'intake'"
          :id="id"
          :items="one.origin.items"
          @bring="(items) => intake.bringListed(id, items)"
        />
        <p v-if="one.origin.pdf && !hasPdf" class="mt-3">
          It leads to a PDF.
          <KitButton look="word" @click="intake.fetchPdf(id)">Fetch it</KitButton>
        </p>
        <h2 class="heading mb-1 mt-4 flex items-center justify-between">As it will print<StyleChooser /></h2>
        <PrintedCitation :cited="cited" />
        <h2 class="heading mb-1 mt-4">Where it goes</h2>
        <PlacesBlock
          v-if="session.may('edit')"
          :id="id"
          v-model:tagging="tagging"
          :source="one.source"
          @file="filing = true"
        />
        <p v-else>
          <template v-if="one.source.places.length || one.source.tags.length || one.source.reading">
            <span v-for="p in one.source.places" :key="p.path" class="chip mr-1">{{ p.path }}</span>
            <span
              v-for="t in one.source.tags"
              :key="t.id"
              class="mr-1.5"
              :class="t.subject ? 'term' : 'tag'"
              :title="t.subject ? 'A subject term: it came with the record' : 'A tag'"
              >{{ t.name }}</span
            >
            <span v-if="one.source.reading" class="text-muted">{{ one.source.reading }}</span>
          </template>
          <span v-else class="text-muted">In no collection</span>
        </p>
        <h2 class="heading mt-4">How it is known</h2>
        <template v-for="g in known" :key="g.how">
          <p v-if="g.how" class="mt-1 text-fine text-muted first-letter:uppercase">{{ g.how }}</p>
          <dl class="mt-0.5 grid grid-cols-[5.2rem_minmax(0,1fr)] gap-x-2 gap-y-0.5 text-fine">
            <template v-for="k in g.fields" :key="k.field">
              <dt class="text-muted">{{ variableLabel(k.field) }}</dt>
              <dd class="line-clamp-3 break-words">{{ k.text }}</dd>
            </template>
          </dl>
        </template>
        <template v-if="where">
          <h2 class="heading mb-0.5 mt-4">Where from</h2>
          <p class="break-words text-fine">{{ where }}</p>
        </template>
      </template>
    </div>
    <div v-if="one && !mending" class="flex shrink-0 flex-wrap gap-1.5 border-t border-line px-[18px] py-2">
      <template v-if="intake.scope === 'intake'">
        <KitButton v-if="match" look="main" title="Enter" @click="intake.join(id, match.id)">Join to it</KitButton>
        <KitButton :look="match ? 'plain' : 'main'" title="i" @click="intake.takeIn({ ids: [id] })">{{
          match ? 'Take in as new' : 'Take in'
        }}</KitButton>
        <KitButton v-if="session.may('edit')" title="e" @click="mending = true">Mend</KitButton>
        <KitButton title="Look it up in the catalogues and fill missing fields" @click="intake.lookUp(id)">{{
          one.origin.lookedUp ? 'Ask again' : 'Look up'
        }}</KitButton>
        <KitButton title="Delete" @click="intake.setAside({ ids: [id] })">Set aside</KitButton>
      </template>
      <KitButton v-else look="main" @click="intake.setAside({ ids: [id] }, false)">Put back into the intake</KitButton>
    </div>
    <FileTo v-if="one" v-model:open="filing" :chosen="{ ids: [id] }" :count="1" />
  </aside>
</template>
