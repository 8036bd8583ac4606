/** Printing a document: its pages as pictures at the printer's size, in a frame of their own. */
import type { PDFDocumentProxy } from 'pdfjs-dist';
import { onScopeDispose, ref, type Ref } from 'vue';

/** Dots an inch: text stays sharp on paper, and a hundred pages stay within memory. */
const RESOLUTION = 150;

/**
 * @param onPage told after each page
 * @throws AbortError where it is stopped
 */
async function printDocument(
  pdf: PDFDocumentProxy,
  onPage: (done: number) => void,
  signal: AbortSignal,
): Promise<void> {
  const frame = document.createElement('iframe');
  frame.className = 'fixed h-0 w-0 border-0 invisible';
  frame.setAttribute('aria-hidden', 'true');
  document.body.append(frame);
  const urls: string[] = [];
  const remove = (): void => {
    frame.remove();
    urls.forEach((url) => URL.revokeObjectURL(url));
  };
  try {
    const page = frame.contentDocument!;
    page.title = document.title;
    const style = page.createElement('style');
    style.textContent =
      '@page { margin: 0 } body { margin: 0 } img { display: block; width: 100%; max-height: 100vh; object-fit: contain; break-after: page }';
    page.head.append(style);
    const canvas = document.createElement('canvas');
    for (let n = 1; n <= pdf.numPages; n += 1) {
      signal.throwIfAborted();
      const leaf = await pdf.getPage(n);
      const viewport = leaf.getViewport({ scale: RESOLUTION / 72 });
      canvas.width = Math.floor(viewport.width);
      canvas.height = Math.floor(viewport.height);
      await leaf.render({ canvas, viewport, intent: 'print' }).promise;
      const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/jpeg', 0.92));
      const image = page.createElement('img');
      urls.push(URL.createObjectURL(blob!));
      image.src = urls.at(-1)!;
      await image.decode();
      page.body.append(image);
      onPage(n);
    }
    frame.contentWindow!.addEventListener('afterprint', remove, { once: true });
    frame.contentWindow!.print();
  } catch (error) {
    remove();
    throw error;
  }
}

export function usePrinting(pdf: Ref<PDFDocumentProxy | null>) {
  const done = ref(0);
  /** Pages in all while they are prepared, 0 otherwise. */
  const of = ref(0);
  let stopped: AbortController | undefined;
  const stop = (): void => stopped?.abort();
  onScopeDispose(stop);

  async function print(): Promise<void> {
    if (!pdf.value || of.value) return;
    stopped = new AbortController();
    done.value = 0;
    of.value = pdf.value.numPages;
    try {
      await printDocument(pdf.value, (n) => (done.value = n), stopped.signal);
    } catch (error) {
      if (!stopped.signal.aborted) throw error;
    } finally {
      of.value = 0;
    }
  }
  return { done, of, print, stop };
}
