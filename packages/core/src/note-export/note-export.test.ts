import { execFileSync } from 'node:child_process';
import { strFromU8, unzipSync } from 'fflate';
import { parse } from 'yaml';
import { expect, test } from 'vitest';
import { quotation, type DocNode } from '../notes/index.ts';
import { fileNames, noteToMarkdown, writeNotes, type ExportedNote } from './index.ts';

const ID = '018f0000-0000-7000-8000-00000000000a';
const OTHER = '018f0000-0000-7000-8000-00000000000b';
const SOURCE = '018f0000-0000-7000-8000-00000000000c';
const t = (text: string, ...marks: string[]): DocNode => ({ type: 'text', text, ...(marks.length && { marks: marks.map((type) => ({ type })) }) }); // prettier-ignore
const p = (...content: DocNode[]): DocNode => ({ type: 'paragraph', content });
const cell = (text: string): DocNode => ({ type: 'tableCell', content: [p(t(text))] });
const doc: DocNode = {
  type: 'doc',
  content: [
    { type: 'heading', attrs: { level: 2 }, content: [t('What the letter says')] },
    quotation({ source: SOURCE, file: null, page: 2, cited: '214', mark: null }, 'be not shut upon the *ebb*'),
    p(t('He '), t('knew', 'bold'), t(' of it; see '), { type: 'reference', attrs: { to: 'note', id: OTHER, label: 'the minute', how: 'disagrees' } }, t('.')), // prettier-ignore
    { type: 'orderedList', attrs: { start: 1 }, content: [{ type: 'listItem', content: [p(t('first'))] }, { type: 'listItem', content: [p(t('second', 'italic'))] }] }, // prettier-ignore
    { type: 'codeBlock', attrs: { language: null }, content: [t('a < b')] },
    { type: 'table', content: [{ type: 'tableRow', content: [cell('Tide'), cell('Metres')] }, { type: 'tableRow', content: [cell('ebb'), cell('1.2')] }] }, // prettier-ignore
  ],
};
const note = (id: string, title: string, text: DocNode): ExportedNote => ({
  id,
  title,
  text,
  event: 'spring 1872',
  about: [{ name: 'Okonjo, Elias', kind: 'person' }],
  tags: ['used'],
  sources: [{ id: SOURCE, name: 'Okonjo 1872', title: 'Letter to the Secretary', cited: '214' }],
  by: 'Marit',
  made: '2026-12-02T10:00:00.000Z',
  changed: '2026-12-02T10:00:00.000Z',
  personal: false,
});
const files = (notes: ExportedNote[]): Record<string, string> =>
  Object.fromEntries(Object.entries(unzipSync(writeNotes(notes, 'markdown'))).map(([name, bytes]) => [name, strFromU8(bytes)])); // prettier-ignore

test('a folder of notes: front matter that YAML reads, links from file to file, quotations with their page as footnotes', () => {
  const all = files([
    note(ID, 'Who knew?', doc),
    note(OTHER, 'The minute: of 21 February', { type: 'doc', content: [] }),
  ]);
  expect(Object.keys(all)).toEqual(['Who knew.md', 'The minute of 21 February.md']);
  const [, matter, body] = /^---\n([^]*?)\n---\n\n([^]*)$/.exec(all['Who knew.md']!)!;
  expect(parse(matter!)).toMatchObject({
    title: 'Who knew?',
    date: 'spring 1872',
    about: [{ name: 'Okonjo, Elias', kind: 'person' }],
    tags: ['used'],
    sources: [{ name: 'Okonjo 1872', title: 'Letter to the Secretary', page: '214' }],
  });
  expect(body).toContain('> be not shut upon the \\*ebb\\*[^1]');
  expect(body).toContain('[^1]: Okonjo 1872, p. 214');
  expect(body).toContain('[the minute](The%20minute%20of%2021%20February.md "disagrees with")');
});

test('pandoc reads the Markdown as what it was', () => {
  const markdown = noteToMarkdown(doc, { addressOf: () => 'x.md', sourceOf: () => 'Okonjo 1872' });
  const html = execFileSync('pandoc', ['-f', 'gfm+footnotes', '-t', 'html'], { input: markdown }).toString();
  for (const part of [
    '<h2',
    '<blockquote>',
    'upon the *ebb*',
    'class="footnote-ref"',
    '<strong>knew</strong>',
    '<ol',
    '<em>second</em>',
    'a &lt; b',
    '<th>Tide</th>',
    '<td>1.2</td>',
    'Okonjo 1872, p. 214',
  ])
    // prettier-ignore
    expect([part, html.includes(part)]).toEqual([part, true]);
});

test('names of files hold everywhere, and no two are one', () => {
  expect(fileNames(['A/B: "C"?', 'a b c', '', '...', 'CON\u0000'], 'md')).toEqual(['A B C.md', 'a b c 2.md', 'Untitled note.md', 'Untitled note 2.md', 'CON.md']); // prettier-ignore
});
