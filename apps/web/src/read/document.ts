/** A document of a source as the reader works on it: its pages, marks and senses. */
import type { PDFDocumentProxy } from 'pdfjs-dist';
import { citedPage, citedPlace, type CitedPages } from '@pandecta/core/page-numbers';
import { computed, onScopeDispose, ref, shallowRef } from 'vue';
import { withoutMarkup } from '@pandecta/core/source';
import {
  routes,
  type Changed,
  type DocumentReply,
  type EditMark,
  type Mark,
  type NewMark,
  type SourceDetail,
} from '@pandecta/contract';
import { addressOf, ask } from '../api/client.ts';
import { useChanges } from '../act/changes.ts';
import { useUnsent, type Unsent } from '../act/unsent.ts';
import { concerns, useLive } from '../data/live.ts';
import { openDocument } from './viewer/pdf.ts';

/** A mark, with what another wrote in its gloss while one wrote there oneself. */
export type GlossedMark = Mark & { met?: Unsent['met'] };

export function useDocument() {
  const changes = useChanges();
  const unsent = useUnsent();
  const info = ref<DocumentReply | null>(null);
  const source = ref<SourceDetail | null>(null);
  const pdf = shallowRef<PDFDocumentProxy | null>(null);
  const error = ref('');
  let turn = 0;
  /** Set while the password of a locked file is waited for. */
  const locked = shallowRef<{ isWrong: boolean; open(password: string, keep: boolean): void } | null>(null);

  /** The one that is kept, else one the person writes. */
  async function passwordFor(file: string, isWrong: boolean): Promise<string> {
    const kept = isWrong ? null : await ask(routes.own.filePassword, { file }).catch(() => null);
    if (kept?.password) return kept.password;
    return new Promise((resolve) => {
      locked.value = {
        isWrong,
        open(password, keep) {
          locked.value = null;
          if (keep) void ask(routes.own.keepFilePassword, { file, body: { password } }).catch(() => undefined);
          resolve(password);
        },
      };
    });
  }

  const here = () => ({ source: info.value!.sourceId, file: info.value!.fileId });

  /** @returns whether it is open now: not where it failed, or another was opened meanwhile */
  async function open(sourceId: string, fileId: string): Promise<boolean> {
    const mine = ++turn;
    error.value = '';
    locked.value = null;
    info.value = null;
    pdf.value = null;
    try {
      const asked = ask(routes.marks.document, { source: sourceId, file: fileId });
      const [reply, detail, doc] = await Promise.all([
        asked,
        ask(routes.sources.one, { source: sourceId }),
        // A page of the web, and a picture, is shown as it is kept.
        asked.then(({ mediaType }) =>
          /html|^image/.test(mediaType)
            ? null
            : openDocument(addressOf(routes.files.content, { file: fileId }), {
                hidesMarks: true,
                password: (isWrong) => passwordFor(fileId, isWrong),
              }),
        ),
      ]);
      if (mine !== turn) return false;
      info.value = reply;
      source.value = detail;
      pdf.value = doc;
      return true;
    } catch (cause) {
      if (mine === turn) error.value = (cause as Error).message;
      return false;
    }
  }

  let reloads = 0;
  async function reload(): Promise<void> {
    if (!info.value) return;
    const [mine, shown] = [++reloads, turn];
    const [reply, detail] = await Promise.all([
      ask(routes.marks.document, here()),
      ask(routes.sources.one, { source: info.value.sourceId }),
    ]).catch(() => []);
    // Another document was opened meanwhile, or this one asked for again: that answer is the newer.
    if (!reply || !detail || mine !== reloads || shown !== turn) return;
    info.value = reply;
    source.value = detail;
  }
  onScopeDispose(
    useLive().listen((touched) => {
      if (!info.value) return;
      if (concerns(touched, ['source'], info.value.sourceId) || concerns(touched, ['sense'])) void reload();
    }),
  );

  const addMark = (body: NewMark): Promise<Changed | undefined> =>
    changes.change(() => ask(routes.marks.make, { ...here(), body }));
  /** @param seen the gloss that stood there when one began to write */
  async function gloss(mark: string, text: string, seen: string): Promise<void> {
    // Where an earlier one of one's own waits to be saved, what stood before it still stands.
    const mine = unsent.ofMark(mark);
    const before = mine && !mine.met ? (mine.edit.before as string) : seen;
    const { title } = source.value!.record;
    await unsent.save({
      edit: { of: 'gloss', mark, value: text, before },
      text,
      says: `Gloss in “${withoutMarkup(title ?? 'Untitled')}”`,
      to: `/read/${here().source}/${here().file}`,
    });
  }
  const editMark = (mark: string, body: Pick<EditMark, 'sense' | 'shape' | 'place'>): Promise<unknown> =>
    changes.change(() => ask(routes.marks.edit, { mark, body }));
  const shareMark = (mark: string): Promise<unknown> => changes.change(() => ask(routes.marks.share, { mark }));
  /** @param number as it is printed; without one, what was set by hand is removed */
  const numberPage = (page: number, number?: string): Promise<Changed | undefined> =>
    changes.change(() => ask(routes.files.number, { ...here(), body: { page, ...(number && { number }) } }));
  const readAnnotations = (): Promise<unknown> =>
    changes.change(() => ask(routes.marks.readAnnotations, here())).then(reload);
  const removeMark = (mark: string): Promise<unknown> => changes.change(() => ask(routes.marks.remove, { mark }));

  /** The marks, each with its gloss as one wrote it last, saved or not; where another wrote meanwhile, with both. */
  const marks = computed(() =>
    (info.value?.marks ?? []).map((mark): GlossedMark => {
      const mine = unsent.ofMark(mark.id);
      return mine?.met ? { ...mark, met: mine.met } : { ...mark, gloss: mine?.text ?? mark.gloss };
    }),
  );
  const numbers = computed((): CitedPages => info.value?.numbers ?? { runs: [], origin: 'counted' });
  /** @param y in points from the top of the page */
  const placeOf = (page: number, y: number | undefined): string =>
    numbers.value.runs.length ? citedPlace(numbers.value, page, y) : String(page);
  const labelOf = (page: number): string => (numbers.value.runs.length ? citedPage(numbers.value, page) : String(page));
  const yieldGloss = (mark: string): void => unsent.letGo({ of: 'gloss', mark });

  return {
    info,
    marks,
    source,
    pdf,
    error,
    locked,
    open,
    reload,
    addMark,
    gloss,
    yieldGloss,
    editMark,
    shareMark,
    numberPage,
    numbers,
    labelOf,
    placeOf,
    removeMark,
    readAnnotations,
  };
}
