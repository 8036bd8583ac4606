/** Going through the parts of a picture with the arrows: to the nearest that lies that way. */
import { computed, ref, type Ref } from 'vue';

/** A part of a picture, where it is drawn. */
export interface Shape {
  key: string;
  x: number;
  y: number;
}

const WAYS: Record<string, [number, number]> = {
  ArrowRight: [1, 0],
  ArrowLeft: [-1, 0],
  ArrowDown: [0, 1],
  ArrowUp: [0, -1],
};

/** What lies aside counts so many times what lies ahead. */
const ASIDE = 3;

/** The nearest shape in the direction of a key; undefined where none lies that way. */
export function nearest<S extends Shape>(shapes: S[], from: Shape, key: string): S | undefined {
  const way = WAYS[key];
  if (!way) return undefined;
  let best: S | undefined;
  let least = Infinity;
  for (const s of shapes) {
    const [dx, dy] = [s.x - from.x, s.y - from.y];
    const ahead = dx * way[0] + dy * way[1];
    const aside = Math.abs(dx * way[1]) + Math.abs(dy * way[0]);
    if (ahead <= 0.5) continue;
    const far = ahead + ASIDE * aside;
    if (far < least) [least, best] = [far, s];
  }
  return best;
}

export function useSteps<S extends Shape>(shapes: Ref<S[]>, chosen: Ref<string | undefined>) {
  const last = ref<string>();
  /** The one part that the tab key comes to. */
  const at = computed(() => {
    const known = (key: string | undefined): boolean => shapes.value.some((s) => s.key === key);
    return known(last.value) ? last.value : known(chosen.value) ? chosen.value : shapes.value[0]?.key;
  });
  function step(event: KeyboardEvent): void {
    const from = shapes.value.find((s) => s.key === at.value);
    const to = from && nearest(shapes.value, from, event.key);
    if (!to) return;
    event.preventDefault();
    event.stopPropagation();
    last.value = to.key;
    (event.currentTarget as Element).querySelector<SVGElement>(`[data-key="${CSS.escape(to.key)}"]`)?.focus();
  }
  return { at, step };
}
