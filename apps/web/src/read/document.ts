/** A document of a source as the reader works on it: its pages, marks, senses, and what is searched in it. */
import type { PDFDocumentProxy } from 'pdfjs-dist';
import { computed, onScopeDispose, ref, shallowRef } from 'vue';
import { routes, type Changed, type DocumentReply, type PageHit, type SourceDetail } from '@pandecta/contract';
import { addressOf, ask } from '../api/client.ts';
import { useChanges } from '../act/changes.ts';
import { concerns, useLive } from '../data/live.ts';
import { openDocument } from './pdf.ts';
import type { Selected } from './selection.ts';

export function useDocument() {
  const changes = useChanges();
  const info = ref<DocumentReply | null>(null);
  const source = ref<SourceDetail | null>(null);
  const pdf = shallowRef<PDFDocumentProxy | null>(null);
  const trouble = ref('');
  const query = ref('');
  const hits = ref<PageHit[]>([]);
  const total = ref(0);
  const hitAt = ref(0);
  const currentHit = computed(() => hits.value[hitAt.value]);
  let turn = 0;

  const here = () => ({ source: info.value!.sourceId, file: info.value!.fileId });

  async function open(sourceId: string, fileId: string): Promise<void> {
    const mine = ++turn;
    trouble.value = '';
    info.value = null;
    pdf.value = null;
    hits.value = [];
    try {
      const asked = ask(routes.marks.document, { source: sourceId, file: fileId });
      const [reply, detail, doc] = await Promise.all([
        asked,
        ask(routes.sources.one, { source: sourceId }),
        // A page of the web, and a picture, is shown as it is kept.
        asked.then(({ mediaType }) =>
          /html|^image/.test(mediaType) ? null : openDocument(addressOf(routes.files.content, { file: fileId })),
        ),
      ]);
      if (mine !== turn) return;
      info.value = reply;
      source.value = detail;
      pdf.value = doc;
    } catch (error) {
      if (mine === turn) trouble.value = (error as Error).message;
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
      if (info.value && concerns(touched, ['source'], info.value.sourceId)) void reload();
    }),
  );

  async function search(text: string): Promise<void> {
    query.value = text;
    if (!info.value || !text.trim()) {
      hits.value = [];
      total.value = 0;
      return;
    }
    const reply = await ask(routes.files.within, { ...here(), query: { q: text } });
    if (query.value !== text) return;
    hits.value = reply.hits;
    total.value = reply.total;
    hitAt.value = 0;
  }

  const addMark = ({ page, quote, rects }: Selected, sense: string): Promise<Changed | undefined> =>
    changes.change(() => ask(routes.marks.make, { ...here(), body: { page, sense, quote, rects } }));
  /** A gloss that met another's newer one. */
  const met = ref<{ mark: string; by: string; yours: string; theirs: string } | null>(null);
  /** @param seen the gloss that stood there when one began to write */
  async function gloss(mark: string, text: string, seen: string): Promise<void> {
    met.value = null;
    await changes.change(
      () => ask(routes.marks.edit, { mark, body: { gloss: text, seen: { gloss: seen } } }),
      ({ by, moved }) => {
        met.value = { mark, by, yours: text, theirs: String(moved[0]?.theirs ?? '') };
        void reload();
      },
    );
  }
  const setSense = (mark: string, sense: string): Promise<unknown> =>
    changes.change(() => ask(routes.marks.edit, { mark, body: { sense } }));
  const removeMark = (mark: string): Promise<unknown> => changes.change(() => ask(routes.marks.remove, { mark }));

  return {
    info,
    source,
    pdf,
    trouble,
    query,
    hits,
    total,
    hitAt,
    currentHit,
    open,
    reload,
    search,
    addMark,
    met,
    gloss,
    setSense,
    removeMark,
  };
}
