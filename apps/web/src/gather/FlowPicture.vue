<script setup lang="ts">
/** What became of what was found, as streams: from the catalogues over the works to where they went. A table says the same. */
import { useElementSize } from '@vueuse/core';
import { sankey, sankeyLinkHorizontal, type SankeyLink, type SankeyNode } from 'd3-sankey';
import { computed, ref } from 'vue';
import type { SearchFlow } from '@pandecta/contract';
import { formatNumber } from '@pandecta/core/wording';
import KitTable from '../kit/KitTable.vue';

const props = defineProps<{ flow: SearchFlow }>();
const box = ref<HTMLElement>();
const { width } = useElementSize(box);
const HEIGHT = 190;
const BAR = 10;
/** Room for the words at the right end. */
const WORDS = 190;

interface Stop {
  name: string;
  n: number;
  tone: 'catalogue' | 'works' | 'in' | 'out' | 'open';
}
type Node = SankeyNode<Stop, object>;
type Link = SankeyLink<Stop, object>;

const FATES = [
  ['taken in', 'taken in', 'in'],
  ['joined', 'joined to what was here', 'in'],
  ['waiting', 'wait in the intake', 'open'],
  ['set aside', 'set aside', 'out'],
  ['left', 'not gathered', 'out'],
] as const;

const picture = computed(() => {
  const { catalogues, works, duplicates, records, fates } = props.flow;
  const nodes: Stop[] = [
    ...catalogues.map((c): Stop => ({ name: c.name, n: c.records, tone: 'catalogue' })),
    { name: 'works screened', n: works, tone: 'works' },
  ];
  const screened = nodes.length - 1;
  const links: { source: number; target: number; value: number }[] = [];
  // Each catalogue's share of the works, as several may have the same one.
  catalogues.forEach((c, i) => {
    if (c.records) links.push({ source: i, target: screened, value: (c.records * works) / records });
  });
  const end = (
    name: string,
    n: number,
    tone: Stop['tone'],
    from: (add: (source: number, value: number) => void, at: number) => void,
  ): void => {
    if (!n) return;
    const at = nodes.push({ name, n, tone }) - 1;
    from((source, value) => links.push({ source, target: at, value }), at);
  };
  end('duplicates', duplicates, 'out', (add) =>
    catalogues.forEach((c, i) => c.records && add(i, (c.records * duplicates) / records)),
  );
  for (const [fate, name, tone] of FATES) end(name, fates[fate], tone, (add) => add(screened, fates[fate]));
  const layout = sankey<Stop, object>()
    .nodeWidth(BAR)
    .nodePadding(16)
    .nodeSort(null)
    .extent([
      [1, 14],
      [Math.max(300, width.value - WORDS), HEIGHT - 6],
    ]);
  return works ? layout({ nodes: nodes.map((d) => ({ ...d })), links }) : undefined;
});
const told = computed(() => [
  ...props.flow.catalogues.map((c) => ({ what: `Records of ${c.name}`, n: c.records })),
  { what: 'Records the catalogues have', n: props.flow.matched },
  { what: 'Records fetched', n: props.flow.records },
  { what: 'Duplicates', n: props.flow.duplicates },
  { what: 'Works screened', n: props.flow.works },
  ...FATES.map(([fate, name]) => ({ what: `Works ${name}`, n: props.flow.fates[fate] })),
]);
const path = sankeyLinkHorizontal();
const FILL: Record<Stop['tone'], string> = {
  catalogue: 'fill-verdigris',
  works: 'fill-ink',
  in: 'fill-verdigris',
  open: 'fill-ochre',
  out: 'fill-muted',
};
const heightOf = (n: Node): number => Math.max(1.5, n.y1! - n.y0!);
const toneOf = (l: Link): Stop['tone'] => (l.target as Node).tone;
</script>

<template>
  <div ref="box">
    <svg v-if="picture && width" :width="width" :height="HEIGHT" aria-hidden="true" class="overflow-visible">
      <path
        v-for="(l, i) in picture.links"
        :key="i"
        :d="path(l) ?? ''"
        fill="none"
        class="opacity-20"
        :class="toneOf(l) === 'open' ? 'stroke-ochre' : toneOf(l) === 'out' ? 'stroke-muted' : 'stroke-verdigris'"
        :stroke-width="Math.max(1, l.width ?? 1)"
      />
      <g v-for="n in picture.nodes" :key="n.name">
        <rect :x="n.x0" :y="n.y0" :width="BAR" :height="heightOf(n)" :class="FILL[n.tone]" />
        <text
          :x="n.tone === 'catalogue' ? n.x0 : n.x1! + 6"
          :y="n.tone === 'catalogue' ? n.y0! - 4 : (n.y0! + n.y1!) / 2"
          :dy="n.tone === 'catalogue' ? 0 : '0.32em'"
          class="fill-ink text-fine"
        >
          <tspan class="font-mono font-medium">{{ formatNumber(n.n) }}</tspan>
          {{ n.name }}
        </text>
      </g>
    </svg>
    <div class="sr-only">
      <KitTable
        label="What became of what was found"
        :columns="[
          { key: 'what', name: 'What' },
          { key: 'n', name: 'How many' },
        ]"
        :rows="told"
      >
        <template #what="{ row }">{{ row.what }}</template>
        <template #n="{ row }">{{ row.n }}</template>
      </KitTable>
    </div>
  </div>
</template>
