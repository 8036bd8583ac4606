/** Notes begun from a document: from the mark that is open, the words that are selected, or the page one is at; and quotes that are copied or dragged away with their page. */
import { useEventListener } from '@vueuse/core';
import type { Ref } from 'vue';
import { quotation, type Origin } from '@pandecta/core/notes';
import { useNoting } from '../act/noting.ts';
import type { useDocument } from './document.ts';
import type { Selected } from './viewer/selection.ts';

const escape = (text: string): string =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);

/** @param element what the words are selected in */
export function useNoteHere(
  doc: ReturnType<typeof useDocument>,
  marking: { selected: Selected | null },
  active: Ref<string | null>,
  page: () => number,
  element: () => HTMLElement | undefined,
): () => void {
  const noting = useNoting();
  const originAt = (at: number, y?: number): Origin | undefined => {
    const info = doc.info.value;
    return info
      ? { source: info.sourceId, file: info.fileId, page: at, cited: doc.placeOf(at, y), mark: null }
      : undefined;
  };
  const selected = (): { words: string; origin: Origin } | undefined => {
    const what = marking.selected;
    const origin = what && originAt(what.page, what.rects[0]?.y0);
    return origin ? { words: what.quote.exact.replace(/\s+/g, ' ').trim(), origin } : undefined;
  };

  function carry(event: Event, data: DataTransfer | null): void {
    const what = element()?.contains(event.target as Node) ? selected() : undefined;
    if (!what || !data) return;
    const attributes = Object.entries(what.origin).map(([name, value]) => (value === null ? '' : ` data-${name}="${escape(String(value))}"`)); // prettier-ignore
    data.setData('text/plain', what.words);
    data.setData('text/html', `<blockquote data-quotation${attributes.join('')}>${escape(what.words)}</blockquote>`);
    if (event.type === 'copy') event.preventDefault();
  }
  useEventListener(document, 'dragstart', (event: DragEvent) => carry(event, event.dataTransfer));
  useEventListener(document, 'copy', (event: ClipboardEvent) => carry(event, event.clipboardData));

  return () => {
    const words = selected();
    if (words)
      void noting.begin({
        text: { type: 'doc', content: [quotation(words.origin, words.words), { type: 'paragraph' }] },
      });
    else if (active.value) void noting.begin({ marks: [active.value] });
    else {
      const origin = originAt(page());
      void noting.begin(origin ? { from: [origin] } : {});
    }
  };
}
