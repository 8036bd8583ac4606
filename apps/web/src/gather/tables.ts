/** Tables among files: what their columns hold is asked before they are sent, and remembered by their headings. */
import { useLocalStorage } from '@vueuse/core';
import { shallowRef } from 'vue';
import { decodeText, type Columns, type Preview } from '@pandecta/core/formats';
import type { Sent } from './upload.ts';

export interface AskedTable extends Preview {
  name: string;
  /** The text the preview was made of: its beginning. */
  text: string;
  answer(columns: Columns | null): void;
}

/** The table one is asked about. */
export const asked = shallowRef<AskedTable | null>(null);

/** As much of a table as shows what its columns hold, in bytes. */
const LOOKED_AT = 65_536;
const remembered = useLocalStorage<Record<string, Columns>>('columns of tables', {});
/** How many kinds of table are remembered. */
const MOST = 50;

const isTable = ({ file }: Sent): boolean => /\.(?:csv|tsv|tab)$/i.test(file.name);

/** What the columns of each table are; null where whoever was asked would rather not go on. */
export async function columnsFor(files: Sent[]): Promise<Map<File, Columns> | null> {
  const tables = files.filter(isTable);
  const out = new Map<File, Columns>();
  if (!tables.length) return out;
  const { previewTable } = await import('@pandecta/core/formats/table');
  const answered = new Map<string, Columns>();
  for (const { file, path } of tables) {
    const { text } = decodeText(new Uint8Array(await file.slice(0, LOOKED_AT).arrayBuffer()));
    const preview = previewTable(text);
    // What is no table after all is told when it is read.
    if (preview.headings.length < 2 || !preview.rows.length) continue;
    const headings = JSON.stringify(preview.headings);
    const columns =
      answered.get(headings) ??
      (await new Promise<Columns | null>((answer) => {
        const known = remembered.value[headings] ?? preview.columns;
        asked.value = { ...preview, columns: { ...known }, name: path, text, answer };
      }));
    asked.value = null;
    if (!columns) return null;
    answered.set(headings, columns);
    out.set(file, columns);
    const others = Object.entries(remembered.value).filter(([h]) => h !== headings);
    remembered.value = Object.fromEntries([[headings, columns], ...others].slice(0, MOST));
  }
  return out;
}
