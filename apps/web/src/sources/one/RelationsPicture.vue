<script setup lang="ts">
/** What stands around a source, drawn: itself in the middle, a line for each relation, an arrow to whom it is said of. */
import { useElementSize } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import type { RelatedSource, RelationsOf } from '@pandecta/contract';
import { RELATIONS } from '@pandecta/core/changes';
import { KINDS } from '@pandecta/core/source';

const props = defineProps<{ id: string; around: RelationsOf }>();
const router = useRouter();
const box = ref<HTMLElement>();
const { width } = useElementSize(box);
const HIGH = 280;
/** More are listed beneath and not drawn. */
const MOST = 14;

const others = computed(() => props.around.sources.filter((s) => s.id !== props.id).slice(0, MOST));
const places = computed(() => {
  const [cx, cy] = [width.value / 2, HIGH / 2];
  const out = new Map([[props.id, { x: cx, y: cy }]]);
  others.value.forEach((s, i) => {
    const turn = (2 * Math.PI * i) / others.value.length - Math.PI / 2;
    out.set(s.id, { x: cx + (cx - 90) * Math.cos(turn), y: cy + (cy - 30) * Math.sin(turn) });
  });
  return out;
});
/** One line for two, whatever is said between them. */
const lines = computed(() => {
  const pairs = new Map<string, { from: string; to: string; says: string[] }>();
  for (const { from, to, as } of props.around.relations) {
    if (!places.value.has(from) || !places.value.has(to)) continue;
    const key = [from, to].sort().join();
    const known = pairs.get(key) ?? { from, to, says: [] };
    known.says.push(known.from === from ? RELATIONS[as].from.toLowerCase() : RELATIONS[as].to.toLowerCase());
    pairs.set(key, known);
  }
  return [...pairs.values()].map(({ from, to, says }) => {
    const [a, b] = [places.value.get(from)!, places.value.get(to)!];
    const long = Math.hypot(b.x - a.x, b.y - a.y) || 1;
    const [dx, dy] = [(b.x - a.x) / long, (b.y - a.y) / long];
    return {
      key: `${from} ${to}`,
      x1: a.x + dx * 16,
      y1: a.y + dy * 16,
      x2: b.x - dx * 19,
      y2: b.y - dy * 19,
      x: (a.x + b.x) / 2,
      y: (a.y + b.y) / 2 - 4,
      says: says.join(', '),
      own: from === props.id || to === props.id,
    };
  });
});
const name = (s: RelatedSource): string => (s.title.length > 26 ? `${s.title.slice(0, 25)}…` : s.title);
/** Its name stands on the side away from the middle, where no line comes from. */
const nameAt = (id: string): number => {
  const { y } = places.value.get(id)!;
  return y < HIGH / 2 ? y - 15 : y + 24;
};
const go = (id: string): void => void (id !== props.id && router.push(`/sources/${id}`));
</script>

<template>
  <div ref="box">
    <svg v-if="width" :width="width" :height="HIGH" role="group" aria-label="What stands around it">
      <defs>
        <marker id="arrow" viewBox="0 0 8 8" refX="7" refY="4" markerWidth="7" markerHeight="7" orient="auto">
          <path d="M0,0 L8,4 L0,8 z" class="fill-muted" />
        </marker>
      </defs>
      <g v-for="l in lines" :key="l.key">
        <line
          :x1="l.x1"
          :y1="l.y1"
          :x2="l.x2"
          :y2="l.y2"
          :class="l.own ? 'stroke-muted' : 'stroke-line'"
          marker-end="url(#arrow)"
        />
        <text :x="l.x" :y="l.y" text-anchor="middle" class="halo fill-muted text-label">{{ l.says }}</text>
      </g>
      <a
        v-for="s in around.sources.filter((each) => places.has(each.id))"
        :key="s.id"
        :href="`/sources/${s.id}`"
        @click.prevent="go(s.id)"
      >
        <title>{{ s.title }}{{ s.year ? `, ${s.year}` : '' }}{{ s.id === id ? ', this source' : '' }}</title>
        <rect
          :x="places.get(s.id)!.x - 13"
          :y="places.get(s.id)!.y - 10"
          width="26"
          height="20"
          rx="3"
          :class="s.id === id ? 'fill-verdigris' : 'fill-card stroke-ink'"
        />
        <text
          :x="places.get(s.id)!.x"
          :y="places.get(s.id)!.y + 4"
          text-anchor="middle"
          class="font-mono text-label"
          :class="s.id === id ? 'fill-paper' : 'fill-ink'"
        >
          {{ KINDS[s.kind].stamp }}
        </text>
        <text
          v-if="s.id !== id"
          :x="places.get(s.id)!.x"
          :y="nameAt(s.id)"
          text-anchor="middle"
          class="halo fill-ink font-serif text-fine"
        >
          {{ name(s) }}
        </text>
      </a>
    </svg>
  </div>
</template>

<style scoped>
.halo {
  paint-order: stroke;
  stroke: var(--color-paper);
  stroke-width: 4px;
}
</style>
