/** pdf.js and the parts of its viewer, loaded when the first document is opened. */
import type { PDFDocumentProxy } from 'pdfjs-dist';

type PdfJs = typeof import('pdfjs-dist');
type PdfParts = typeof import('pdfjs-dist/web/pdf_viewer.mjs');
let loading: Promise<{ lib: PdfJs; parts: PdfParts }> | undefined;

export function pdfjs(): Promise<{ lib: PdfJs; parts: PdfParts }> {
  return (loading ??= (async () => {
    const lib = await import('pdfjs-dist');
    lib.GlobalWorkerOptions.workerSrc = (await import('pdfjs-dist/build/pdf.worker.min.mjs?url')).default;
    // The parts take the library from here.
    (globalThis as { pdfjsLib?: PdfJs }).pdfjsLib = lib;
    const [parts] = await Promise.all([
      import('pdfjs-dist/web/pdf_viewer.mjs'),
      import('pdfjs-dist/web/pdf_viewer.css'),
    ]);
    return { lib, parts };
  })());
}

/** Remarks of readers that pdf.js would draw; as marks they are drawn by the reader itself (core/annotations). */
const AS_MARKS = new Set(['Highlight', 'Underline', 'Squiggly', 'StrikeOut', 'Text', 'Square', 'Popup']);

/** What stands among the marks is not drawn a second time; what is drawn by hand, links and forms are. */
function withoutMarks(pdf: PDFDocumentProxy): PDFDocumentProxy {
  const getPage = pdf.getPage.bind(pdf);
  const looked = new Map<number, Promise<void>>();
  const look = async (number: number): Promise<void> => {
    const page = await getPage(number);
    for (const { id, subtype } of (await page.getAnnotations()) as { id: string; subtype: string }[])
      if (AS_MARKS.has(subtype)) pdf.annotationStorage.setValue(id, { noView: true });
  };
  pdf.getPage = async (number) => {
    if (!looked.has(number))
      looked.set(
        number,
        look(number).catch(() => undefined),
      );
    await looked.get(number);
    return getPage(number);
  };
  return pdf;
}

/**
 * @param password of a locked file; asked for where there is none, or it is wrong
 * @throws with a sentence when the document cannot be shown
 */
export async function openDocument(
  url: string,
  { hidesMarks = false, password }: { hidesMarks?: boolean; password?: (isWrong: boolean) => Promise<string> } = {},
): Promise<PDFDocumentProxy> {
  const { lib } = await pdfjs();
  try {
    const loading = lib.getDocument({
      url,
      standardFontDataUrl: '/document/standard_fonts/',
      cMapUrl: '/document/cmaps/',
      wasmUrl: '/document/wasm/',
      useSystemFonts: false,
      isEvalSupported: false,
    });
    if (password)
      loading.onPassword = (send: (password: string) => void, reason: number) =>
        void password(reason === lib.PasswordResponses.INCORRECT_PASSWORD).then(send);
    const pdf = await loading.promise;
    return hidesMarks ? withoutMarks(pdf) : pdf;
  } catch (error) {
    if ((error as Error).name === 'PasswordException')
      throw new Error('This document is locked with a password; it cannot be shown here.', { cause: error });
    throw new Error('This document cannot be shown: it may be damaged. The file is kept and can be downloaded.', {
      cause: error,
    });
  }
}
