<script setup lang="ts">
/** Two to five collections compared: what each has alone, and what stands in several. */
import { max } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { routes, type ComparedPart } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import { formatNumber } from '@pandecta/core/wording';
import { ask } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import ChooseBox from '../../kit/ChooseBox.vue';
import EmptyState from '../../kit/EmptyState.vue';
import KitButton from '../../kit/KitButton.vue';
import KitNotice from '../../kit/KitNotice.vue';
import KitTable from '../../kit/KitTable.vue';
import { usePlaces, type Offer } from '../../places/store.ts';
import OfferLine from './OfferLine.vue';

const MOST = 5;
const route = useRoute();
const router = useRouter();
const places = usePlaces();
const choosing = ref(false);
const text = ref('');
const of = computed(() => [route.query.of].flat().filter((x): x is string => Boolean(x)));
const { data: reply, error } = useAsked({
  question: () => of.value,
  fetch: async (ids, signal) =>
    ids.length < 2 ? null : ask(routes.places.compare, { query: { of: ids.slice(0, MOST) }, signal }),
  concerns: (touched) => concerns(touched, ['source', 'collection']),
});

const show = (ids: string[]): void => void router.replace({ path: '/sources/compare', query: { of: ids } });
const offers = computed(() => places.offers(text.value).filter((o) => o.id && !of.value.includes(o.id)));
const add = (offer: Offer): void => show([...of.value, offer.id!]);

/** Those only one has first, then what more and more share; the largest first among them. */
const parts = computed(() =>
  [...(reply.value?.parts ?? [])].sort((a, b) => a.in.length - b.in.length || b.count - a.count),
);
const collections = computed(() => reply.value?.collections ?? []);

const HIGH = 150;
const ROW = 30;
const LEFT = 250;
const STEP = 56;
const y = computed(() =>
  scaleLinear()
    .domain([0, max(parts.value, (p) => p.count) ?? 1])
    .range([0, HIGH - 24]),
);
const x = (i: number): number => LEFT + i * STEP + STEP / 2;
const rowAt = (i: number): number => HIGH + 18 + i * ROW;
const stands = (part: ComparedPart, id: string): boolean => part.in.includes(id);
const first = (p: ComparedPart): number => collections.value.findIndex((c) => stands(p, c.id));
const last = (p: ComparedPart): number => collections.value.findLastIndex((c) => stands(p, c.id));

function said(part: ComparedPart): string {
  const names = collections.value.filter((c) => stands(part, c.id)).map((c) => c.name);
  if (names.length === 1) return `Only in ${names[0]!}`;
  const all = names.length === collections.value.length;
  return `${all ? 'In all: ' : 'In just '}${names.slice(0, -1).join(', ')} and ${names.at(-1)!}`;
}
function addressOf(part: ComparedPart): string {
  const query = new URLSearchParams();
  for (const { id } of collections.value) query.append(stands(part, id) ? 'include' : 'exclude', `in=${id}`);
  return `/sources?${query.toString()}`;
}
</script>

<template>
  <div class="h-full overflow-auto">
    <div class="mx-auto max-w-[64rem] px-6 py-5">
      <div class="flex flex-wrap items-center gap-3">
        <h1 class="mr-auto font-serif text-title font-semibold">Collections compared</h1>
        <KitButton :disabled="of.length >= MOST" @click="choosing = true">Add a collection…</KitButton>
        <KitButton look="quiet" to="/sources">Back to the sources</KitButton>
      </div>
      <p class="mt-1 text-fine text-muted">
        Each column counts the sources that are in exactly the collections marked below it. Click it to see them.
      </p>
      <KitNotice v-if="error" tone="bad" class="mt-3">{{ error }}</KitNotice>
      <EmptyState v-else-if="of.length < 2" title="Choose two to five collections">
        Shows the sources they share and those in only one of them.
        <template #deeds><KitButton look="main" @click="choosing = true">Choose a collection</KitButton></template>
      </EmptyState>
      <p v-else-if="!reply" class="mt-4 text-muted">Counting…</p>
      <template v-else>
        <div class="mt-4 overflow-x-auto">
          <svg
            :width="LEFT + Math.max(1, parts.length) * STEP + 20"
            :height="HIGH + 18 + collections.length * ROW"
            role="group"
            aria-label="What the collections share"
          >
            <rect
              v-for="(c, i) in collections"
              :key="c.id"
              x="0"
              :y="rowAt(i) - ROW / 2"
              :width="LEFT + parts.length * STEP + 20"
              :height="ROW"
              :class="i % 2 ? 'fill-paper' : 'fill-panel'"
            />
            <text v-for="(c, i) in collections" :key="`n${c.id}`" x="8" :y="rowAt(i) + 4" class="fill-ink text-body">
              {{ c.name.length > 26 ? c.name.slice(0, 25) + '…' : c.name }}
              <title>{{ c.name }}</title>
            </text>
            <text
              v-for="(c, i) in collections"
              :key="`c${c.id}`"
              :x="LEFT - 12"
              :y="rowAt(i) + 4"
              text-anchor="end"
              class="fill-muted font-mono text-label"
            >
              {{ formatNumber(c.count) }}
            </text>
            <a
              v-for="(p, i) in parts"
              :key="p.in.join()"
              :href="addressOf(p)"
              class="part"
              :aria-label="`${said(p)}: ${countSources(p.count)}`"
              @click.prevent="router.push(addressOf(p))"
            >
              <title>{{ said(p) }}: {{ countSources(p.count) }}</title>
              <rect
                :x="x(i) - STEP / 2"
                y="0"
                :width="STEP"
                :height="HIGH + 18 + collections.length * ROW"
                class="hit"
              />
              <rect
                :x="x(i) - 14"
                :y="HIGH - y(p.count)"
                width="28"
                :height="Math.max(2, y(p.count))"
                :class="p.in.length === 1 ? 'fill-verdigris opacity-60' : 'fill-verdigris'"
              />
              <text :x="x(i)" :y="HIGH - y(p.count) - 6" text-anchor="middle" class="fill-ink font-mono text-label">
                {{ formatNumber(p.count) }}
              </text>
              <line
                v-if="p.in.length > 1"
                :x1="x(i)"
                :x2="x(i)"
                :y1="rowAt(first(p))"
                :y2="rowAt(last(p))"
                class="stroke-ink"
                stroke-width="2"
              />
              <circle
                v-for="(c, row) in collections"
                :key="c.id"
                :cx="x(i)"
                :cy="rowAt(row)"
                r="6"
                :class="stands(p, c.id) ? 'fill-ink' : 'fill-line'"
              />
            </a>
          </svg>
        </div>
        <p v-if="!parts.length" class="mt-3 text-muted">None of them holds a source.</p>
        <KitTable
          class="mt-6 max-w-[44rem]"
          label="What the collections share, as a table"
          :columns="[
            { key: 'part', name: 'Where' },
            { key: 'count', name: 'Sources', class: 'text-right' },
          ]"
          :rows="parts"
          ><template #part="{ row }">{{ said(row) }}</template
          ><template #count="{ row }"
            ><RouterLink class="hover:underline" :to="addressOf(row)">{{
              countSources(row.count)
            }}</RouterLink></template
          ></KitTable
        >
        <p v-if="collections.length > 2" class="mt-3 flex flex-wrap gap-x-3 text-fine">
          <KitButton v-for="c in collections" :key="c.id" look="quiet" @click="show(of.filter((id) => id !== c.id))"
            >without {{ c.name }}</KitButton
          >
        </p>
      </template>
    </div>
    <ChooseBox
      v-model:open="choosing"
      v-model:text="text"
      title="Compare with"
      label="Name of a collection"
      :entries="offers"
      none="No matching collection"
      @choose="add"
      ><template #default="{ entry }"><OfferLine :offer="entry" /></template
    ></ChooseBox>
  </div>
</template>

<style scoped>
.hit {
  fill: transparent;
}
.part:hover .hit,
.part:focus-visible .hit {
  fill: var(--color-verdtint);
  opacity: 0.5;
}
</style>
