<script setup lang="ts" generic="Line extends { id: string }">
/**
 * A list on screen: of all its lines only those in sight are drawn, and fetched. A line is one option and holds no
 * controls of its own; the keys go to the list.
 */
import { useElementSize } from '@vueuse/core';
import { computed, nextTick, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { vDrag } from '../kit/drag.ts';
import { scrollTo, viewOf, type Layout } from './layout.ts';
import type { ListView } from './make.ts';

const props = defineProps<{
  list: ListView<Line>;
  label: string;
  /** In pixels: the same for all. */
  lineHeight: number;
  /** Whether a line begins a group, which has a heading above it: slot `head`. */
  begins?: (line: Line, before: Line | undefined) => boolean;
  headHeight?: number;
  /** What a line carries when it is dragged. */
  drags?: (line: Line) => object;
}>();
const emit = defineEmits<{ open: [line: Line] }>();
const scroller = useTemplateRef<HTMLElement>('scroller');

/** Told of lines that were looked at; of others nothing is known yet. */
function isHead(i: number): boolean {
  const line = props.begins && props.list.lineAt(i);
  return Boolean(line && (i === 0 || props.list.lineAt(i - 1)) && props.begins!(line, props.list.lineAt(i - 1)));
}

/** The lines known to begin a group. Where groups begin is known when their lines have come. */
const heads = shallowRef<number[]>([]);
const layout = computed<Layout>(() => ({
  count: props.list.total,
  lineHeight: props.lineHeight,
  headHeight: props.headHeight ?? 0,
  heads: props.begins ? heads.value : [],
}));
const { height: seenHeight } = useElementSize(scroller);
const scrolled = ref(0);
const view = computed(() => viewOf(layout.value, scrolled.value, seenHeight.value));
const drawn = computed(() => view.value.items.map((item) => ({ item, line: props.list.lineAt(item.index) })));
watch(
  () => props.begins && drawn.value.filter(({ item }) => isHead(item.index) !== heads.value.includes(item.index)),
  (moved) => {
    if (!moved?.length) return;
    const other = new Set(heads.value);
    for (const { item } of moved) if (!other.delete(item.index)) other.add(item.index);
    heads.value = [...other].sort((a, b) => a - b);
  },
);
// Another answer has other groups.
watch(
  () => props.list.generation,
  () => (heads.value = heads.value.filter(isHead)),
);
const idOf = (line: Line): string => `line-${line.id}`;
/** The line the keyboard is at, where it is drawn. */
const current = computed(() => {
  const at = drawn.value.find(({ line }) => line?.id === props.list.cursor)?.line;
  return at && idOf(at);
});
watch([() => view.value.items, () => props.list.generation], ([items]) => {
  if (items.length) void props.list.ensure(items[0]!.index - 20, items.at(-1)!.index + 40);
});

/** Scrolls as little as is needed for the line one is at to be seen whole. */
function toLine(): void {
  const { cursor, place, total } = props.list;
  const box = scroller.value;
  if (!box || !cursor || place >= total) return;
  const to = scrollTo(layout.value, place, box.scrollTop, box.clientHeight);
  if (to !== box.scrollTop) box.scrollTop = to;
  scrolled.value = box.scrollTop;
}
// Once all lines have their room, as nothing can be scrolled to before; and when the list comes to be seen.
watch(() => [props.list.cursor, props.list.place], toLine, { flush: 'post' });
watch(seenHeight, (now, before) => now && !before && toLine(), { flush: 'post' });
// Coming back from another stage, the line one was at is in sight.
onMounted(() => nextTick(toLine));
defineExpose({ toTop: (): void => scroller.value?.scrollTo({ top: 0 }) });
</script>

<template>
  <div
    ref="scroller"
    class="relative min-h-0 flex-1 overflow-auto outline-none"
    tabindex="0"
    role="listbox"
    :aria-label="label"
    aria-multiselectable="true"
    :aria-activedescendant="current"
    :aria-busy="list.state === 'loading'"
    @scroll.passive="scrolled = scroller!.scrollTop"
  >
    <div :style="{ height: `${view.height}px` }" class="relative">
      <div
        v-for="{ item, line } in drawn"
        :id="line && idOf(line)"
        :key="line?.id ?? item.index"
        v-drag="line && drags && (() => drags!(line))"
        role="option"
        :aria-selected="Boolean(line) && (list.isSelected(line!.id) || list.cursor === line!.id)"
        :aria-setsize="list.total"
        :aria-posinset="item.index + 1"
        class="absolute inset-x-0 top-0 cursor-default select-none"
        :style="{ height: `${item.size}px`, transform: `translateY(${item.start}px)` }"
        @click="line && list.click(line.id, $event)"
        @dblclick="line && emit('open', line)"
      >
        <div v-if="line && isHead(item.index)" :style="{ height: `${headHeight}px` }">
          <slot name="head" :line="line" />
        </div>
        <div v-if="line" :style="{ height: `${lineHeight}px` }">
          <slot :line="line" :selected="list.isSelected(line.id)" :current="list.cursor === line.id" />
        </div>
        <div v-else class="h-full border-b border-line px-4 py-2" aria-hidden="true">
          <div class="ml-16 h-3.5 w-2/3 rounded bg-panel" />
        </div>
      </div>
    </div>
  </div>
</template>
