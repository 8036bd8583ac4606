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

/** @throws with a sentence when the document cannot be shown */
export async function openDocument(url: string): Promise<PDFDocumentProxy> {
  const { lib } = await pdfjs();
  try {
    return await lib.getDocument({
      url,
      standardFontDataUrl: '/document/standard_fonts/',
      cMapUrl: '/document/cmaps/',
      wasmUrl: '/document/wasm/',
      useSystemFonts: false,
      isEvalSupported: false,
    }).promise;
  } catch (error) {
    if ((error as Error).name === 'PasswordException')
      throw new Error('This document is locked with a password; it cannot be shown here.', { cause: error });
    throw new Error('This document cannot be shown: it may be damaged. The file is kept and can be downloaded.', {
      cause: error,
    });
  }
}
