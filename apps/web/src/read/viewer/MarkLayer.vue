<script setup lang="ts">
/** What stands on one page: its marks in their shapes, the words that were searched for, and a new region or point as it is drawn. */
import { computed, ref } from 'vue';
import type { Mark, PageHit } from '@pandecta/contract';
import { turnBack, turnRect, type Rect, type Sense, type Shape, type Turn } from '@pandecta/core/marks';
import KitButton from '../../kit/KitButton.vue';
import { FILL, LINE } from '../colours.ts';

const props = defineProps<{
  scale: number;
  /** In points, upright. */
  size: { width: number; height: number };
  turn: Turn;
  marks: Mark[];
  senses: Sense[];
  hits: PageHit[];
  currentHit: PageHit | undefined;
  active: string | null;
  /** The shape that is drawn by dragging or clicking; null while words are selected. */
  draws: Extract<Shape, 'region' | 'point'> | null;
}>();
const emit = defineEmits<{ mark: [id: string]; draw: [place: Rect] }>();

/** Of a place on the page as it is shown. */
const boxOf = ({ x0, y0, x1, y1 }: Rect): Record<string, string> => ({
  left: `${x0 * props.scale}px`,
  top: `${y0 * props.scale}px`,
  width: `${(x1 - x0) * props.scale}px`,
  height: `${(y1 - y0) * props.scale}px`,
});
const place = (r: Rect): Record<string, string> => boxOf(turnRect(r, props.size, props.turn));
/** The left end of its first line, where its key stands. */
const corner = (m: Mark): Record<string, string> => {
  const { left, top } = place(m.rects[0] ?? { x0: 0, y0: 0, x1: 0, y1: 0 });
  return { left: `calc(${left} - 1px)`, top: top! };
};
const sense = (m: Mark): Sense | undefined => props.senses.find((s) => s.id === m.sense);
const look = (m: Mark): string[] => {
  const colour = sense(m)?.colour ?? 'straw';
  if (m.shape === 'underline') return ['border-b-2', LINE[colour]];
  if (m.shape === 'region') return ['border-2', LINE[colour]];
  if (m.shape === 'highlight') return [FILL[colour]];
  return [];
};

/** Sides a point is shown with, in points. */
const POINT = 6;
const begun = ref<{ x: number; y: number } | null>(null);
const reached = ref({ x: 0, y: 0 });
const drawn = computed((): Rect | null => {
  if (!begun.value) return null;
  const [a, b] = [begun.value, reached.value];
  return { x0: Math.min(a.x, b.x), y0: Math.min(a.y, b.y), x1: Math.max(a.x, b.x), y1: Math.max(a.y, b.y) };
});
/** In points: how far an arrow moves what is placed by keys, and the least it is wide. */
const [STEP, LEAST] = [8, 8];
const shownSize = computed(() =>
  props.turn % 180 ? { width: props.size.height, height: props.size.width } : props.size,
);
const placed = ref<Rect | null>(null);
/** What is drawn at the moment, by pointer or keys. */
const outline = computed(() => drawn.value ?? placed.value);
const ARROWS: Partial<Record<string, [number, number]>> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }; // prettier-ignore
/** Arrows put a region or a point on the page, with Shift they make it larger or smaller, Enter marks it. */
function byKeys(event: KeyboardEvent): void {
  const { width, height } = shownSize.value;
  const arrow = ARROWS[event.key];
  if (event.key === 'Escape' && placed.value) placed.value = null;
  else if (event.key === 'Enter' && placed.value) {
    emit('draw', turnBack(placed.value, props.size, props.turn));
    placed.value = null;
  } else if (arrow || event.key === 'Enter') {
    const side = props.draws === 'point' ? POINT : width / 4;
    const now = placed.value ?? { x0: (width - side) / 2, y0: (height - side) / 2, x1: (width + side) / 2, y1: (height + side) / 2 }; // prettier-ignore
    const [dx, dy] = placed.value && arrow ? [arrow[0] * STEP, arrow[1] * STEP] : [0, 0];
    placed.value = event.shiftKey && props.draws === 'region' ? sized(now, dx, dy) : shifted(now, dx, dy);
  } else return;
  event.preventDefault();
  event.stopPropagation();
}
/** Within the page, as large as it was. */
function shifted({ x0, y0, x1, y1 }: Rect, dx: number, dy: number): Rect {
  const { width, height } = shownSize.value;
  const x = Math.max(-x0, Math.min(width - x1, dx));
  const y = Math.max(-y0, Math.min(height - y1, dy));
  return { x0: x0 + x, y0: y0 + y, x1: x1 + x, y1: y1 + y };
}
function sized({ x0, y0, x1, y1 }: Rect, dx: number, dy: number): Rect {
  const { width, height } = shownSize.value;
  return {
    x0,
    y0,
    x1: Math.max(x0 + LEAST, Math.min(width, x1 + dx)),
    y1: Math.max(y0 + LEAST, Math.min(height, y1 + dy)),
  };
}
/** On the page as it is shown, in points. */
function at(event: PointerEvent): { x: number; y: number } {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
  return { x: (event.clientX - box.left) / props.scale, y: (event.clientY - box.top) / props.scale };
}
function begin(event: PointerEvent): void {
  (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
  begun.value = reached.value = at(event);
}
function end(): void {
  const rect = drawn.value;
  begun.value = null;
  if (!rect || !props.draws) return;
  if (props.draws === 'point') {
    const { x, y } = reached.value;
    emit('draw', turnBack({ x0: x, y0: y, x1: x + POINT, y1: y + POINT }, props.size, props.turn));
  } else if (rect.x1 - rect.x0 > 4 && rect.y1 - rect.y0 > 4) emit('draw', turnBack(rect, props.size, props.turn));
}
</script>

<template>
  <div class="absolute inset-0 mix-blend-multiply" aria-hidden="true">
    <template v-for="m in marks" :key="m.id">
      <div
        v-for="(r, i) in m.rects"
        :key="i"
        class="absolute"
        :class="[look(m), active === m.id && 'outline-2 outline-verdigris']"
        :style="place(r)"
        :data-shape="m.shape"
      >
        <span
          v-if="m.shape === 'strike'"
          class="absolute inset-x-0 top-1/2 border-t-2"
          :class="LINE[sense(m)?.colour ?? 'straw']"
        />
      </div>
    </template>
    <template v-for="(h, i) in hits" :key="`h${i}`">
      <div
        v-for="(r, k) in h.rects"
        :key="k"
        class="absolute rounded-[2px]"
        :class="h === currentHit ? 'bg-[#f2b84b] outline-2 outline-[#8a570b]' : 'bg-[#f3e2a9]'"
        :style="place(r)"
      />
    </template>
  </div>
  <KitButton
    v-for="m in marks"
    :key="m.id"
    look="bare"
    class="pointer-events-auto absolute z-[2] -translate-x-full rounded-l-[3px] px-1 font-mono text-label font-semibold text-[#1f262d]"
    :class="[FILL[sense(m)?.colour ?? 'straw'], m.shape === 'point' && '!rounded-full']"
    :style="corner(m)"
    :aria-label="`${sense(m)?.key ?? ''} ${sense(m)?.name}: ${m.quote.exact.slice(0, 60) || m.shape}`"
    @click="emit('mark', m.id)"
  >
    {{ sense(m)?.key ?? '·' }}
  </KitButton>
  <div
    v-if="draws"
    class="pointer-events-auto absolute inset-0 z-[3] cursor-crosshair touch-none"
    :aria-label="
      draws === 'region'
        ? 'Drag over the region to mark; by keys the arrows place it, with Shift they size it, Enter marks it'
        : 'Click the place to mark; by keys the arrows place it, Enter marks it'
    "
    role="application"
    tabindex="0"
    @keydown="byKeys"
    @blur="placed = null"
    @pointerdown.left="begin"
    @pointermove="(event) => begun && (reached = at(event))"
    @pointerup="end"
    @pointercancel="begun = null"
  >
    <div
      v-if="outline && (draws === 'region' || placed)"
      class="absolute border-2 border-verdigris"
      :class="draws === 'point' && 'rounded-full'"
      :style="boxOf(outline)"
    />
    <span class="sr-only" role="status">{{
      placed
        ? `From ${Math.round(placed.x0)}, ${Math.round(placed.y0)} to ${Math.round(placed.x1)}, ${Math.round(placed.y1)} points`
        : ''
    }}</span>
  </div>
</template>
