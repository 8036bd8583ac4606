/** A document in pdf.js's viewer: where its pages stand, which is read, and the ways to move. */
import type { PDFDocumentProxy } from 'pdfjs-dist';
import type { EventBus, PDFLinkService, PDFViewer } from 'pdfjs-dist/web/pdf_viewer.mjs';
import { useEventListener, useThrottleFn } from '@vueuse/core';
import { computed, onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue';
import type { Turn } from '@pandecta/core/marks';
import { pdfjs } from './pdf.ts';

/** Where a page stands, in pixels from the upper left corner of what is scrolled. */
export interface PlacedPage {
  number: number;
  left: number;
  top: number;
  width: number;
  height: number;
  /** In points, as it is shown unturned. */
  size: { width: number; height: number };
}

/** Points to CSS pixels at 100 %, as pdf.js counts: 96 pixels to the inch. */
const PIXELS = 96 / 72;
/** Pages so far beyond what is in sight are placed as well, in pixels. */
const BEYOND = 900;

/**
 * @param room the width in pixels a page may take
 * @param scale pixels a point, null to fit the width
 */
export function usePages(
  container: Ref<HTMLElement | undefined>,
  inner: Ref<HTMLElement | undefined>,
  document: Ref<PDFDocumentProxy | null>,
  room: Ref<number>,
  zoom: Ref<number | null>,
  turn: Ref<Turn>,
  labelOf: (page: number) => string,
) {
  let viewer: PDFViewer | undefined;
  let links: PDFLinkService | undefined;
  const ended = new AbortController();
  const placed = shallowRef<PlacedPage[]>([]);
  const page = ref(1);
  const ready = ref(false);
  const top = ref(0);
  const sight = ref(0);
  /** Of the first page as it is shown, in points. */
  const first = ref({ width: 482, height: 680 });
  const fit = computed(() => Math.max(0.4, Math.min(1.37, room.value / first.value.width)));
  const scale = computed(() => zoom.value ?? fit.value);
  const near = computed(() => {
    const [from, to] = [top.value - BEYOND, top.value + sight.value + BEYOND];
    return placed.value.filter((p) => p.top + p.height > from && p.top < to);
  });

  async function begin(): Promise<PDFViewer | undefined> {
    const { lib, parts } = await pdfjs();
    // Something else is shown by now.
    if (!container.value || !inner.value) return undefined;
    const eventBus: EventBus = new parts.EventBus();
    links = new parts.PDFLinkService({
      eventBus,
      externalLinkTarget: parts.LinkTarget.BLANK,
      externalLinkRel: 'noopener',
    });
    const made = new parts.PDFViewer({
      container: container.value as HTMLDivElement,
      viewer: inner.value as HTMLDivElement,
      eventBus,
      linkService: links,
      removePageBorders: true,
      // With what is hidden for being a mark (pdf.ts).
      annotationMode: lib.AnnotationMode.ENABLE_STORAGE,
      enableAutoLinking: false,
      abortSignal: ended.signal,
    } as ConstructorParameters<typeof parts.PDFViewer>[0]);
    links.setViewer(made);
    eventBus.on('pagesinit', () => {
      const size = made.getPageView(0)?.viewport as { width: number; height: number; scale: number } | undefined;
      if (size) first.value = { width: size.width / size.scale, height: size.height / size.scale };
      lay();
      ready.value = true;
    });
    for (const event of ['scalechanging', 'rotationchanging', 'pagesloaded']) eventBus.on(event, place);
    // Of very long documents a page has its own size only when it is drawn.
    eventBus.on('pagerendered', ({ pageNumber }: { pageNumber: number }) => {
      const [was, now] = [placed.value[pageNumber - 1], divOf(pageNumber)];
      if (was?.width !== now.clientWidth || was.height !== now.clientHeight) place();
    });
    eventBus.on('pagechanging', (event: { pageNumber: number }) => (page.value = event.pageNumber));
    return made;
  }

  const divOf = (number: number): HTMLElement => (viewer!.getPageView(number - 1) as { div: HTMLElement }).div;

  /** At the scale and turn that are asked for. */
  function lay(): void {
    if (!viewer?.pagesCount) return;
    if (viewer.pagesRotation !== turn.value) viewer.pagesRotation = turn.value;
    const wanted = scale.value / PIXELS;
    if (Math.abs(viewer.currentScale - wanted) > 1e-4) viewer.currentScale = wanted;
    place();
  }
  function place(): void {
    if (!viewer) return;
    const upright = turn.value % 180 === 0;
    placed.value = Array.from({ length: viewer.pagesCount }, (_, i) => {
      const div = divOf(i + 1);
      const [width, height] = [div.clientWidth, div.clientHeight];
      const points = { width: width / scale.value, height: height / scale.value };
      div.dataset.page = String(i + 1);
      const size = upright ? points : { width: points.height, height: points.width };
      return { number: i + 1, left: div.offsetLeft, top: div.offsetTop, width, height, size };
    });
    look();
  }
  function look(): void {
    top.value = container.value?.scrollTop ?? 0;
    sight.value = container.value?.clientHeight ?? 0;
  }
  const lookSoon = useThrottleFn(look, 50, true);
  useEventListener(container, 'scroll', () => void lookSoon());

  // A page is called by its number as soon as that is another.
  watch(
    () => near.value.map(({ number }) => [number, `Page ${labelOf(number)}`] as const),
    (called) => {
      for (const [number, label] of called) {
        const div = divOf(number);
        div.removeAttribute('data-l10n-id');
        div.setAttribute('role', 'region');
        div.setAttribute('aria-label', label);
      }
    },
  );

  async function show(shown: PDFDocumentProxy | null): Promise<void> {
    ready.value = false;
    placed.value = [];
    page.value = 1;
    if (!container.value) return;
    viewer ??= await begin();
    // Another was opened meanwhile.
    if (document.value !== shown || !viewer) return;
    viewer.setDocument(shown as never);
    links!.setDocument(shown as never, null);
  }
  watch([container, document], () => void show(document.value), { flush: 'post', immediate: true });
  watch([scale, turn], lay);
  onScopeDispose(() => {
    viewer?.setDocument(null as never);
    ended.abort();
  });

  /** @param y in pixels from the top of the page */
  function go(number: number, y = 0): void {
    const at = placed.value[number - 1];
    if (at && container.value) container.value.scrollTo({ top: at.top + Math.max(0, y - 120) - (y > 120 ? 0 : 14) });
  }
  /** To where a link or a heading inside the document leads. */
  const follow = (target: string | unknown[]): Promise<void> => links!.goToDestination(target as never);

  return { page, placed, near, scale, ready, go, follow };
}
