/** Marks as DOCX, read back by pandoc. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import type { ExportedMark } from '@pandecta/core/mark-export';
import { docxOfMarks } from './printing.ts';

const mark = (more: Partial<ExportedMark>): ExportedMark => ({
  id: '1',
  sourceId: 'a',
  fileId: 'f',
  title: 'Marsh v Harbour Board',
  source: 'Marsh v Harbour Board 1998',
  citation: 'Marsh v Harbour Board [1998] 2 SLR 33.',
  page: 2,
  cited: 'para 33',
  sense: 'Claim',
  shape: 'highlight',
  quote: { exact: 'the gate was shut', prefix: '', suffix: '' },
  rects: [],
  gloss: '',
  by: 'Marit Okonjo',
  at: '2026-03-02T00:00:00.000Z',
  ...more,
});

test('marks as DOCX stand under their sources, quoted, with place, sense and gloss', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'pandecta-docx-'));
  try {
    const bytes = await docxOfMarks([mark({ gloss: 'At what hour?\nAnd by whom?' }), mark({ id: '2', shape: 'region', quote: { exact: '', prefix: '', suffix: '' }, cited: '12r' })]); // prettier-ignore
    writeFileSync(join(folder, 'marks.docx'), bytes);
    const out = execFileSync('pandoc', ['-t', 'markdown', '--wrap=none', join(folder, 'marks.docx')]).toString();
    expect(out).toMatch(/^## Marsh v Harbour Board/);
    expect(out).toContain('> the gate was shut');
    expect(out).toContain('*Marsh v Harbour Board 1998, para 33 · Claim · Marit Okonjo*');
    expect(out).toMatch(/At what hour\?\\\nAnd by whom\?/);
    expect(out).toContain('f. 12r · Region, Claim');
    expect(out.match(/^## /gm)).toHaveLength(1);
  } finally {
    rmSync(folder, { recursive: true });
  }
});
