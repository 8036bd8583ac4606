/** A document of a source as the reader works on it: its pages, marks, senses, and what is searched in it. */
import type { PDFDocumentProxy } from 'pdfjs-dist';
import { computed, ref, shallowRef } from 'vue';
import type { Changed, DocumentReply, PageHit, SourceDetail, WithinReply } from '@pandecta/contract';
import { api, here } from '../api/client.ts';
import { useChanges } from '../app/changes.ts';
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

  const path = (): string => `/sources/${info.value!.sourceId}/files/${info.value!.fileId}`;

  async function open(sourceId: string, fileId: string): Promise<void> {
    const mine = ++turn;
    trouble.value = '';
    info.value = null;
    pdf.value = null;
    hits.value = [];
    try {
      const [reply, detail, doc] = await Promise.all([
        api.get<DocumentReply>(`/sources/${sourceId}/files/${fileId}`),
        api.get<SourceDetail>(`/sources/${sourceId}`),
        openDocument(here(`/files/${fileId}/content`)),
      ]);
      if (mine !== turn) return;
      info.value = reply;
      source.value = detail;
      pdf.value = doc;
    } catch (error) {
      if (mine === turn) trouble.value = (error as Error).message;
    }
  }

  async function reload(): Promise<void> {
    if (!info.value) return;
    const [reply, detail] = await Promise.all([
      api.get<DocumentReply>(path()),
      api.get<SourceDetail>(`/sources/${info.value.sourceId}`),
    ]);
    info.value = reply;
    source.value = detail;
  }

  async function search(text: string): Promise<void> {
    query.value = text;
    if (!info.value || !text.trim()) {
      hits.value = [];
      total.value = 0;
      return;
    }
    const reply = await api.get<WithinReply>(`/files/${info.value.fileId}/within`, { q: text });
    if (query.value !== text) return;
    hits.value = reply.hits;
    total.value = reply.total;
    hitAt.value = 0;
  }

  const addMark = ({ page, quote, rects }: Selected, sense: string): Promise<Changed | undefined> =>
    changes.change(() => api.post<Changed>(`${path()}/marks`, { page, sense, quote, rects }));
  const gloss = (id: string, text: string): Promise<unknown> =>
    changes.change(() => api.patch<Changed>(`/marks/${id}`, { gloss: text }));
  const setSense = (id: string, sense: string): Promise<unknown> =>
    changes.change(() => api.patch<Changed>(`/marks/${id}`, { sense }));
  const removeMark = (id: string): Promise<unknown> => changes.change(() => api.remove<Changed>(`/marks/${id}`));

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
    gloss,
    setSense,
    removeMark,
  };
}
