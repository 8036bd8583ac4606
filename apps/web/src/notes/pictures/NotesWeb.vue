<script setup lang="ts">
/** Notes and what they are tied to, drawn as a web; a table beside it says the same. */
import { useElementSize } from '@vueuse/core';
import { computed, onScopeDispose, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { routes, type AskWeb, type WebKind, type WebNode } from '@pandecta/contract';
import { HEADING_NAMES } from '@pandecta/core/headings';
import { counted } from '@pandecta/core/wording';
import { ask } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import EmptyState from '../../kit/EmptyState.vue';
import KitButton from '../../kit/KitButton.vue';
import KitNotice from '../../kit/KitNotice.vue';
import KitTable from '../../kit/KitTable.vue';
import type { Places, ToPlace } from './web-worker.ts';

const props = defineProps<{ asked: AskWeb; small?: boolean }>();
const emit = defineEmits<{ open: [node: WebNode] }>();
const { data, error } = useAsked({
  question: () => props.asked,
  fetch: (body, signal) => ask(routes.notes.web, { body, signal }),
  concerns: (touched) => concerns(touched, ['note', 'heading', 'source']),
});
const NAMES: Record<WebKind, string> = {
  note: 'Note',
  source: 'Source',
  ...(Object.fromEntries(Object.entries(HEADING_NAMES).map(([kind, { one }]) => [kind, one])) as Record<keyof typeof HEADING_NAMES, string>), // prettier-ignore
};
const asTable = ref(false);
const canvas = useTemplateRef<HTMLCanvasElement>('canvas');
const box = useTemplateRef<HTMLElement>('box');
const { width, height } = useElementSize(box);
const places = shallowRef<Places>(new Float32Array());
const at = ref(-1);
const nodes = computed(() => data.value?.nodes ?? []);
const index = computed(() => new Map(nodes.value.map((n, i) => [n.id, i])));
const links = computed(() => (data.value?.links ?? []).flatMap((l) => (index.value.has(l.from) && index.value.has(l.to) ? [{ ...l, a: index.value.get(l.from)!, b: index.value.get(l.to)! }] : []))); // prettier-ignore

let worker: Worker | undefined;
watch(
  [nodes, links],
  () => {
    worker?.terminate();
    at.value = -1;
    places.value = new Float32Array();
    if (!nodes.value.length) return;
    worker = new Worker(new URL('./web-worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data: now }: MessageEvent<Places>) => (places.value = now);
    worker.postMessage({
      count: nodes.value.length,
      links: links.value.map((l): [number, number] => [l.a, l.b]),
    } satisfies ToPlace);
  },
  { immediate: true },
);
onScopeDispose(() => worker?.terminate());

/** From where a node stands to where it is drawn, so that all are in sight. */
const view = computed(() => {
  const p = places.value;
  let [left, right, top, bottom] = [0, 0, 0, 0];
  for (let i = 0; i < p.length; i += 2) [left, right, top, bottom] = [Math.min(left, p[i]!), Math.max(right, p[i]!), Math.min(top, p[i + 1]!), Math.max(bottom, p[i + 1]!)]; // prettier-ignore
  const scale = Math.min(
    1.6,
    Math.min((width.value - 120) / (right - left || 1), (height.value - 50) / (bottom - top || 1)),
  );
  return (i: number): [number, number] => [
    width.value / 2 + (p[i * 2]! - (left + right) / 2) * scale,
    height.value / 2 + (p[i * 2 + 1]! - (top + bottom) / 2) * scale,
  ];
});
const SHAPES: Record<WebKind, 'round' | 'square' | 'diamond'> = { note: 'round', source: 'square', person: 'diamond', body: 'diamond', place: 'diamond', event: 'diamond', theme: 'diamond' }; // prettier-ignore
const near = computed(
  () => new Set(links.value.flatMap((l) => (l.a === at.value ? [l.b] : l.b === at.value ? [l.a] : []))),
);

function draw(): void {
  const ink = canvas.value?.getContext('2d');
  if (!ink || !places.value.length || !width.value) return;
  const colour = (name: string): string =>
    getComputedStyle(document.documentElement).getPropertyValue(`--color-${name}`).trim();
  const [line, ink2, verdigris, edge, madder, muted] = ['line', 'ink', 'verdigris', 'edge', 'madder', 'muted'].map(colour) as [string, string, string, string, string, string]; // prettier-ignore
  const ratio = devicePixelRatio;
  Object.assign(canvas.value!, { width: width.value * ratio, height: height.value * ratio });
  ink.setTransform(ratio, 0, 0, ratio, 0, 0);
  ink.clearRect(0, 0, width.value, height.value);
  ink.font = '12px "Source Sans 3 Variable", sans-serif';
  const few = nodes.value.length <= 90;
  for (const { a, b, how } of links.value) {
    const [[x1, y1], [x2, y2]] = [view.value(a), view.value(b)];
    const isNear = a === at.value || b === at.value;
    ink.strokeStyle = how === 'disagrees' ? madder : isNear ? verdigris : line;
    ink.lineWidth = isNear ? 1.6 : 1;
    ink.beginPath();
    ink.moveTo(x1, y1);
    ink.lineTo(x2, y2);
    ink.stroke();
    if ((isNear || nodes.value.length < 20) && how !== 'about' && how !== 'quotes') {
      ink.fillStyle = how === 'disagrees' ? madder : muted;
      ink.fillText(how, (x1 + x2) / 2 + 4, (y1 + y2) / 2);
    }
  }
  nodes.value.forEach((node, i) => {
    const [x, y] = view.value(i);
    const r = i === at.value ? 7 : 5;
    ink.fillStyle = node.kind === 'note' ? verdigris : node.kind === 'source' ? ink2 : edge;
    ink.beginPath();
    if (SHAPES[node.kind] === 'round') ink.arc(x, y, r, 0, 7);
    else if (SHAPES[node.kind] === 'square') ink.rect(x - r, y - r, 2 * r, 2 * r);
    else {
      ink.moveTo(x, y - r - 1);
      for (const [dx, dy] of [[1, 0], [0, 1], [-1, 0]] as const) ink.lineTo(x + dx * (r + 1), y + dy * (r + 1)); // prettier-ignore
    }
    ink.fill();
    if (few || i === at.value || near.value.has(i)) {
      const name =
        node.name.length > 26 && i !== at.value ? `${node.name.slice(0, 25)}…` : node.name || 'Untitled note';
      ink.fillStyle = ink2;
      ink.textAlign = 'center';
      ink.fillText(name, x, y - r - 5);
      ink.textAlign = 'start';
    }
  });
}
watch([places, width, height, at, canvas], () => requestAnimationFrame(draw), { flush: 'post' });

function nodeAt(event: MouseEvent): number {
  const { left, top } = canvas.value!.getBoundingClientRect();
  const [x, y] = [event.clientX - left, event.clientY - top];
  let best = -1;
  let nearest = 14;
  nodes.value.forEach((_, i) => {
    const [nx, ny] = view.value(i);
    const far = Math.hypot(nx - x, ny - y);
    if (far < nearest) [best, nearest] = [i, far];
  });
  return best;
}
const point = (event: MouseEvent): void => void (at.value = places.value.length ? nodeAt(event) : -1);
function press(event: MouseEvent): void {
  point(event);
  if (at.value >= 0) emit('open', nodes.value[at.value]!);
}
/** Arrows go to the next node that way, Enter opens it. */
function walk(event: KeyboardEvent): void {
  const way = ({ ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] } as Record<string, [number, number]>)[event.key]; // prettier-ignore
  if (event.key === 'Enter' && at.value >= 0) emit('open', nodes.value[at.value]!);
  else if (way && nodes.value.length) {
    if (at.value < 0 || !places.value.length) at.value = 0;
    else {
      const [x, y] = view.value(at.value);
      let [best, nearest] = [at.value, Infinity];
      nodes.value.forEach((_, i) => {
        const [nx, ny] = view.value(i);
        const [along, across] = [(nx - x) * way[0] + (ny - y) * way[1], Math.abs((nx - x) * way[1]) + Math.abs((ny - y) * way[0])]; // prettier-ignore
        if (i !== at.value && along > 1 && along + 2 * across < nearest) [best, nearest] = [i, along + 2 * across];
      });
      at.value = best;
    }
  } else return;
  event.preventDefault();
  event.stopPropagation();
}
const told = computed(() => {
  const node = nodes.value[at.value];
  return node ? `${NAMES[node.kind]}: ${node.name}, tied to ${counted(near.value.size, 'other')}` : '';
});
const columns = [
  { key: 'from', name: 'From' },
  { key: 'how', name: 'How', class: 'text-muted' },
  { key: 'to', name: 'To' },
];
const rows = computed(() => links.value.map((l) => ({ from: nodes.value[l.a]!, how: l.how, to: nodes.value[l.b]! })));
</script>

<template>
  <div class="flex min-h-0 flex-1 flex-col">
    <KitNotice v-if="error" tone="bad" class="m-4">{{ error }}</KitNotice>
    <EmptyState v-else-if="data && !nodes.length" title="Nothing to draw"
      >Notes, with the headings, sources and notes they are tied to, are drawn here.</EmptyState
    >
    <template v-else-if="data">
      <p v-if="!small" class="flex items-center gap-3 px-5 py-1 text-fine text-muted">
        <span
          >{{ counted(nodes.length, 'node') }}, {{ counted(links.length, 'tie')
          }}{{ data.more ? ', of the notes changed last' : '' }}</span
        >
        <span>● note ■ source ◆ heading</span>
        <KitButton look="word" class="ml-auto" @click="asTable = !asTable">{{
          asTable ? 'As a web' : 'As a table'
        }}</KitButton>
      </p>
      <div v-if="asTable" class="min-h-0 flex-1 overflow-auto px-5 pb-4">
        <KitTable heads label="What is tied to what" :columns="columns" :rows="rows">
          <template #from="{ row }"
            ><KitButton look="word" class="min-h-6 text-left" @click="emit('open', row.from)">{{
              row.from.name || 'Untitled note'
            }}</KitButton></template
          ><template #how="{ row }">{{ row.how }}</template
          ><template #to="{ row }"
            ><KitButton look="word" class="min-h-6 text-left" @click="emit('open', row.to)">{{
              row.to.name || 'Untitled note'
            }}</KitButton></template
          >
        </KitTable>
      </div>
      <div v-else ref="box" class="relative min-h-0 flex-1" :class="small && 'h-56 flex-none'">
        <canvas
          ref="canvas"
          tabindex="0"
          role="application"
          class="absolute inset-0 h-full w-full"
          :aria-label="`Web of ${counted(nodes.length, 'node')}: arrows go from one to the next, Enter opens it`"
          @mousemove="point"
          @click="press"
          @keydown="walk"
        />
        <span class="sr-only" role="status">{{ told }}</span>
      </div>
    </template>
    <p v-else class="p-6 text-muted" role="status">Loading…</p>
  </div>
</template>
