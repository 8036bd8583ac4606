/** Marking: what is selected, with which sense and in which shape it is marked, and for whom. */
import { useEventListener, useLocalStorage } from '@vueuse/core';
import { computed, ref, type Ref } from 'vue';
import { isOnWords, offeredSenses, type Rect, type Shape, type Turn } from '@pandecta/core/marks';
import { useCiting } from '../citing/store.ts';
import { useSession } from '../session/store.ts';
import type { useDocument } from './document.ts';
import { chooseWord, type Arrow } from './viewer/caret.ts';
import { readSelection, type Selected } from './viewer/selection.ts';

interface Shown {
  scale: number;
  turn: Turn;
  sizeOf: (page: number) => { width: number; height: number };
  element: HTMLElement | undefined;
  /** Whether the text flows: a mark is then found by its words alone. */
  flows: boolean;
  /** Whether it is a picture, which has no words to select. */
  pictured: boolean;
}

/** @param isUsed of two side by side, whether this is the one that is used */
export function useMarking(
  doc: ReturnType<typeof useDocument>,
  shown: () => Shown,
  active: Ref<string | null>,
  isUsed: () => boolean,
) {
  const session = useSession();
  const citing = useCiting();
  const selected = ref<Selected | null>(null);
  const sense = ref('');
  const shape = useLocalStorage<Shape>('shape of marks', 'highlight');
  const wantsPersonal = useLocalStorage('marks for oneself', false);
  /** Whoever may not mark for all marks for themselves. */
  const personal = computed({
    get: () => wantsPersonal.value || !session.may('mark'),
    set: (value) => (wantsPersonal.value = value),
  });
  const offered = computed(() => offeredSenses(doc.info.value?.senses ?? []));
  const draws = computed((): 'region' | 'point' | null => {
    const { flows, pictured } = shown();
    if (flows) return null;
    return isOnWords(shape.value) ? (pictured ? 'region' : null) : (shape.value as 'region' | 'point');
  });

  function read(): Selected | undefined {
    const { scale, turn, sizeOf, element } = shown();
    return element && readSelection(element, scale, turn, sizeOf);
  }
  let isPlain = false;
  const look = (): void => void (isPlain || !isUsed() || (selected.value = read() ?? null));
  useEventListener('mouseup', () => setTimeout(look));

  /** What is selected in the plain text: the server finds its place on the page. */
  function choosePlain(what: Pick<Selected, 'page' | 'quote' | 'at'> | null): void {
    isPlain = Boolean(what);
    selected.value = what && { ...what, rects: [] };
  }

  function unchoose(): void {
    isPlain = false;
    getSelection()?.removeAllRanges();
    selected.value = null;
  }

  async function add(what: { page: number; quote: Selected['quote']; rects: Rect[] }, as: Shape): Promise<void> {
    const { page, quote } = what;
    const rects = shown().flows ? [] : what.rects;
    const body = { page, quote, rects, sense: sense.value, shape: as, personal: personal.value };
    const done = await doc.addMark(body);
    unchoose();
    await doc.reload();
    if (done?.id) active.value = done.id;
  }
  /** Marks what is selected; where nothing is, the sense is that of the next mark. */
  async function mark(id: string): Promise<void> {
    const what = selected.value ?? read();
    sense.value = id;
    // Words are highlighted where what is drawn is chosen.
    if (what) await add(what, isOnWords(shape.value) ? shape.value : 'highlight');
  }
  /** A mark that lost its place stands on the selected words from now on. */
  async function place(id: string): Promise<void> {
    const what = selected.value ?? read();
    if (!what) return;
    const { page, quote } = what;
    await doc.editMark(id, { place: { page, quote, rects: shown().flows ? [] : what.rects } });
    unchoose();
    await doc.reload();
  }
  /** A region or a point, drawn on a page. */
  const draw = (page: number, rect: Rect): Promise<void> =>
    add({ page, quote: { exact: '', prefix: '', suffix: '' }, rects: [rect] }, draws.value ?? 'region');

  async function copyQuote(): Promise<void> {
    const what = selected.value ?? read();
    const source = doc.info.value?.sourceId;
    if (what && source) await citing.copyQuote(what.quote.exact, source, doc.placeOf(what.page, what.rects[0]?.y0));
  }

  /** Arrows to the side choose words; up and down go by lines once one is chosen, and scroll before. */
  function choose(arrow: Arrow, extend: boolean): boolean {
    const upright = arrow === 'ArrowUp' || arrow === 'ArrowDown';
    const { element } = shown();
    if (!element || (upright && !extend && getSelection()?.isCollapsed !== false)) return false;
    const word = chooseWord(element, arrow, extend);
    word?.scrollIntoView({ block: 'nearest' });
    look();
    return Boolean(word);
  }

  return {
    selected,
    sense,
    shape,
    personal,
    offered,
    draws,
    mark,
    place,
    draw,
    copyQuote,
    choose,
    choosePlain,
    unchoose,
  };
}
