<script setup lang="ts">
/**
 * Two to ten records beside each other: fields as rows, differences lit at the letter, the better value chosen by rule, any
 * other by a click or a key; what hangs on them; and what becomes of it as it will print.
 */
import { computed, ref, shallowRef, watch } from 'vue';
import { MOST_BESIDE, OF_ALL, routes, type SourceDetail } from '@pandecta/contract';
import { ALL_OF_THEM, canCombine, differences, mergedRecord, planMerge, type Piece } from '@pandecta/core/matching';
import { variableLabel, type SourceRecord } from '@pandecta/core/source';
import { counted, formatDate } from '@pandecta/core/wording';
import { useDeeds } from '../act/commands.ts';
import { ask } from '../api/client.ts';
import StyleChooser from '../citing/StyleChooser.vue';
import { useCiting } from '../citing/store.ts';
import { useAsked, type Asked } from '../data/asked.ts';
import { concerns } from '../data/live.ts';
import EmptyState from '../kit/EmptyState.vue';
import KitButton from '../kit/KitButton.vue';
import KitTable from '../kit/KitTable.vue';
import { turned } from '../kit/words.ts';
import { useSession } from '../session/store.ts';
import { inOrder, valueInWords } from '../sources/index.ts';
import { useCheck } from './store.ts';

const check = useCheck();
const citing = useCiting();
const session = useSession();
/** Those left out of the merging, by id. */
const out = ref(new Set<string>());
/** Values a person chose: the record of each field. */
const taken = ref<Record<string, string>>({});
const row = ref(0);
watch(
  () => check.group?.id,
  () => ((out.value = new Set()), (taken.value = {}), (row.value = 0)),
);

const beside = (question: () => string[] | null): Asked<SourceDetail[]> =>
  useAsked({
    question,
    fetch: (ids, signal) => Promise.all(ids.map((source) => ask(routes.sources.one, { source, signal }))),
    concerns: (touched, ids) => ids.some((id) => concerns(touched, ['source'], id)),
  });
const here = computed(() => check.group?.members.slice(0, MOST_BESIDE) ?? null);
const { data: members, error } = beside(() => here.value);
/** Those of the group after it are fetched while one looks: the next is there at once. */
const ahead = beside(() => check.after?.members.slice(0, MOST_BESIDE) ?? null).data;
const before = shallowRef<SourceDetail[] | null>(null);
watch(ahead, (_, last) => (before.value = last));
/** What was fetched is of the group that is shown, and nobody merged one of them meanwhile. */
const shown = computed<SourceDetail[]>(() => {
  const ids = here.value ?? [];
  const is = (all: SourceDetail[] | null): boolean =>
    all?.length === ids.length && all.every((m, i) => m.id === ids[i]);
  return [members.value, ahead.value, before.value].find(is) ?? [];
});
const inside = computed(() => shown.value.filter((m) => !out.value.has(m.id)));
const records = computed(() => inside.value.map((m) => m.record));
const plan = computed(() =>
  planMerge(
    records.value,
    inside.value.map((m) => ({ provenance: m.provenance, added: m.addedAt })),
  ),
);
/** The one that has most of what hangs on it stays: the fewest addresses have to lead elsewhere. */
const into = computed(() => {
  const weight = (m: SourceDetail): number => m.files.length * 4 + m.places.length + m.tags.length;
  return inside.value.length ? inside.value.reduce((x, y) => (weight(y) > weight(x) ? y : x)) : undefined;
});
/** Whose value stands, by id; or `all` of them, put together. */
const stands = computed<Record<string, string>>(() =>
  Object.fromEntries(
    plan.value.fields.flatMap((f) => {
      const own = taken.value[f];
      // The one that stays keeps the key by which texts cite it.
      const kept = f === 'citation-key' && into.value?.record[f] ? into.value.id : undefined;
      const planned = kept ?? (plan.value.from[f] === ALL_OF_THEM ? OF_ALL : inside.value[plan.value.from[f]!]?.id);
      const id = own && !out.value.has(own) ? own : planned;
      return id ? [[f, id]] : [];
    }),
  ),
);
const merged = computed<SourceRecord | null>(() => {
  if (inside.value.length < 2) return null;
  const at = new Map(inside.value.map((m, i) => [m.id, i]));
  const from = Object.fromEntries(
    Object.entries(stands.value).map(([f, id]) => [f, id === OF_ALL ? ALL_OF_THEM : at.get(id)!]),
  );
  return mergedRecord(records.value, from);
});
const letter = (i: number): string => String.fromCharCode(65 + i);

interface Line {
  field: string;
  cells: Record<string, { pieces: Piece[]; stands: boolean; same: boolean }>;
}
const lines = computed<Line[]>(() => {
  const first = shown.value[0];
  if (!first) return [];
  const fields = [...new Set(shown.value.flatMap((m) => planMerge([m.record]).fields))];
  return inOrder(fields, first.record).flatMap((field): Line[] => {
    const text = (m: SourceDetail): string => valueInWords(field, (m.record as Record<string, unknown>)[field]);
    const best = shown.value.find((m) => m.id === stands.value[field]);
    const against = best ? text(best) : '';
    const all = shown.value.map(text);
    // What they all say alike and no citation prints is left out of sight.
    if (all.every((t) => t === all[0]) && (field === 'abstract' || field === 'note' || field === 'type')) return [];
    const cells = Object.fromEntries(
      shown.value.map((m, i) => {
        const own = all[i]!.length > 260 ? `${all[i]!.slice(0, 260)}…` : all[i]!;
        const pieces = m === best || !against ? [{ text: own, differs: false }] : differences(own, against);
        return [
          m.id,
          {
            pieces,
            stands: m === best || (stands.value[field] === OF_ALL && !out.value.has(m.id)),
            same: all[i] === against,
          },
        ];
      }),
    );
    return [{ field, cells }];
  });
});
const columns = computed(() => [
  { key: 'field', name: 'Field', class: 'w-24 text-muted' },
  ...shown.value.map((m, i) => ({ key: m.id, name: `${letter(i)} · ${since(m)}` })),
]);
const since = (m: SourceDetail): string => `${formatDate(m.addedAt, 'short')}, ${m.cameFrom ?? m.addedBy}`;

const { data: printed } = useAsked({
  question: () => merged.value && { record: merged.value, style: citing.style.id, locale: citing.locale },
  fetch: ({ record, style, locale }, signal) =>
    ask(routes.cite.record, {
      body: { record: withoutOwn(record), style, ...(locale && { locale }) },
      signal,
    }),
  concerns: () => false,
  pause: () => 120,
});
const withoutOwn = ({ custom: _, ...record }: SourceRecord): Record<string, unknown> => record;

const kept = computed(() => {
  const all = inside.value;
  const marks = all.flatMap((m) => m.files).reduce((sum, f) => sum + f.marks, 0);
  const files = new Set(all.flatMap((m) => m.files.map((f) => f.id))).size;
  const names = (of: (m: SourceDetail) => string[]): string => [...new Set(all.flatMap(of))].join(', ');
  return [
    ['Files', files ? String(files) : ''],
    ['Marks', marks ? String(marks) : ''],
    ['Tags', names((m) => m.tags.map((t) => t.name))],
    ['Collections', names((m) => m.places.map((p) => p.path))],
  ].filter(([, value]) => value) as [string, string][];
});

function take(field: string, id: string): void {
  if (!session.may('edit') || out.value.has(id)) return;
  taken.value = { ...taken.value, [field]: id };
}
function leaveOut(id: string): void {
  out.value = turned(out.value, id);
}
function merge(): void {
  const stays = into.value;
  if (!merged.value || !stays || !session.may('edit')) return;
  void check.merge(
    stays.id,
    inside.value.filter((m) => m !== stays).map((m) => m.id),
    stands.value,
  );
}
const ids = (): string[] => inside.value.map((m) => m.id);
const mayDecide = (): boolean => session.may('edit') && inside.value.length > 1;
/** Whether a key has anything to do. */
const may = (deed: () => unknown) => () => (check.group && shown.value.length ? void deed() : false);
useDeeds({
  merge: may(merge),
  'not-same': may(() => mayDecide() && check.relate(ids(), 'other than')),
  versions: may(() => mayDecide() && check.relate(ids(), 'version of')),
  later: may(() => check.putOff()),
  'leave-out': may(() => shown.value.length > 2 && leaveOut(shown.value.at(-1)!.id)),
  // Arrows go through the rows of the group one is at.
  next: (event) => (event?.key.startsWith('Arrow') ? false : may(() => check.step(1))()),
  previous: (event) => (event?.key.startsWith('Arrow') ? false : may(() => check.step(-1))()),
  'check-row': (event) => {
    row.value = Math.max(0, Math.min(lines.value.length - 1, row.value + (event?.key === 'ArrowUp' ? -1 : 1)));
  },
  'take-cell': (event) => {
    const line = lines.value[row.value];
    if (!line) return false;
    const order = inside.value.filter((m) =>
      valueInWords(line.field, (m.record as Record<string, unknown>)[line.field]),
    );
    const now = order.findIndex((m) => m.id === stands.value[line.field]);
    const to = now + (event?.key === 'ArrowLeft' ? -1 : 1);
    const next = order[to];
    if (next) take(line.field, next.id);
    // Behind the last stand all of them, where they can be put together.
    else if (to >= order.length && canCombine(line.field) && stands.value[line.field] !== OF_ALL)
      take(line.field, OF_ALL);
    return undefined;
  },
});
const COUNTS = ['', '', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine', 'Ten'];
const number = computed(() => COUNTS[shown.value.length] ?? String(shown.value.length));
</script>

<template>
  <EmptyState v-if="check.duplicates && !check.group" title="No duplicates"
    >{{ counted(check.duplicates.compared, 'source') }} compared. New sources are compared as they arrive; pairs you
    marked as different are not shown again.</EmptyState
  >
  <p v-else-if="!check.duplicates" class="text-muted" role="status">Comparing all sources with each other…</p>
  <p v-else-if="error" class="text-madder">{{ error }}</p>
  <p v-else-if="!shown.length" class="text-muted">Fetching the records…</p>
  <template v-else-if="check.group">
    <header class="mb-2.5 flex flex-wrap items-baseline gap-x-4 gap-y-1">
      <h1 class="font-serif text-title font-semibold">
        {{ number }} records of one work<template v-if="check.group.class !== 'certain'">?</template>
      </h1>
      <p class="flex flex-wrap gap-x-3 text-fine">
        <span v-for="r in check.group.reasons" :key="r.says" :class="r.for ? 'text-muted' : 'text-ochre'"
          ><span class="mr-1" aria-hidden="true">{{ r.for ? '✓' : '≠' }}</span
          ><span class="sr-only">{{ r.for ? 'for: ' : 'against: ' }}</span
          >{{ r.says }}</span
        >
      </p>
    </header>
    <div class="overflow-x-auto rounded border border-line bg-card px-2.5">
      <KitTable label="The records beside each other" :columns="columns" :rows="lines" heads even>
        <template #field="{ row: line }"
          ><span :class="lines[row] === line && 'border-l-2 border-verdigris pl-1 font-semibold text-ink'">{{
            variableLabel(line.field)
          }}</span
          ><KitButton
            v-if="canCombine(line.field) && session.may('edit') && shown.some((m) => !line.cells[m.id]!.same)"
            look="quiet"
            class="ml-1"
            :aria-pressed="stands[line.field] === OF_ALL"
            :class="stands[line.field] === OF_ALL && 'font-semibold text-verdigris'"
            :name="`${variableLabel(line.field)} of all, put together`"
            @click="take(line.field, OF_ALL)"
            >all</KitButton
          ></template
        >
        <template v-for="(m, i) in shown" :key="m.id" #[m.id]="{ row: line }"
          ><KitButton
            look="bare"
            class="block min-h-6 w-full rounded-sm px-1.5 text-left"
            :class="[
              line.cells[m.id]!.stands && 'border-l-[3px] border-verdigris bg-verdtint',
              out.has(m.id) && 'text-muted line-through',
            ]"
            :aria-pressed="line.cells[m.id]!.stands"
            :name="`${variableLabel(line.field)} of ${letter(i)}`"
            :disabled="!session.may('edit') || out.has(m.id)"
            @click="take(line.field, m.id)"
            ><template v-if="line.cells[m.id]!.pieces.some((p) => p.text)"
              ><template v-for="(p, k) in line.cells[m.id]!.pieces" :key="k"
                ><mark v-if="p.differs" class="bg-lit text-ink">{{ p.text }}</mark
                ><template v-else>{{ p.text }}</template></template
              ></template
            ><span v-else class="text-muted">—</span></KitButton
          ></template
        >
      </KitTable>
    </div>
    <p v-if="kept.length" class="mt-2 text-fine text-muted">
      Kept from all:
      <template v-for="([name, value], i) in kept" :key="name"
        ><template v-if="i"> · </template>{{ name }} <b class="font-semibold text-ink">{{ value }}</b></template
      >
    </p>
    <div v-if="merged" class="mt-3 rounded-md border border-verdigris bg-card px-3.5 py-2.5">
      <h2 class="heading mb-1 flex items-center justify-between">After merging<StyleChooser /></h2>
      <!-- eslint-disable-next-line vue/no-v-html -- made by the citation processor, which escapes what comes from records -->
      <p v-if="printed?.html" class="font-serif text-read leading-[1.4]" v-html="printed.html" />
      <p v-else class="text-muted">{{ merged.title }}</p>
    </div>
    <div v-if="session.may('edit')" class="mt-3 flex flex-wrap items-center gap-2">
      <KitButton look="main" title="Enter" :disabled="!merged" @click="merge"
        >Merge {{ COUNTS[inside.length]?.toLowerCase() || inside.length }} into one</KitButton
      >
      <template v-if="shown.length > 2">
        <KitButton v-for="(m, i) in shown" :key="m.id" @click="leaveOut(m.id)">{{
          out.has(m.id) ? `Take ${letter(i)} back` : `Leave out ${letter(i)}`
        }}</KitButton>
      </template>
      <KitButton title="n" @click="check.relate(ids(), 'other than')">Not the same work</KitButton>
      <KitButton title="v" @click="check.relate(ids(), 'version of')">Versions of one work</KitButton>
      <KitButton title="l" @click="check.putOff()">Later</KitButton>
      <p class="ml-auto text-fine text-muted">Can be undone at any time from the history.</p>
    </div>
  </template>
</template>
