import { strToU8, zipSync } from 'fflate';
import { expect, test } from 'vitest';
import { officeToHtml, textToHtml } from './index.ts';

const docx = (body: string, notes = ''): Uint8Array =>
  zipSync({
    'word/document.xml': strToU8(
      `<w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body>${body}</w:body></w:document>`,
    ),
    'word/footnotes.xml': strToU8(
      `<w:footnotes xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main">${notes}</w:footnotes>`,
    ),
  });
const p = (text: string, style = '', more = ''): string =>
  `<w:p><w:pPr>${style && `<w:pStyle w:val="${style}"/>`}${more}</w:pPr><w:r><w:t>${text}</w:t></w:r></w:p>`;

test('a DOCX document keeps headings, paragraphs, lists and notes, in their order; what it says is text, not markup', () => {
  const list = '<w:numPr><w:numId w:val="1"/></w:numPr>';
  const bytes = docx(
    p('Of gates', 'Heading1') + p('Shut &lt;b&gt; at dusk') + p('one', '', list) + p('two', '', list) + p('After'),
    `<w:footnote w:id="2">${p('See the map.')}</w:footnote>`,
  );
  expect(officeToHtml(bytes, 'docx')).toBe(
    '<h2>Of gates</h2><p>Shut &lt;b&gt; at dusk</p><ul><li>one</li><li>two</li></ul><p>After</p><h2>Notes</h2><ol><li>See the map.</li></ol>',
  );
});

test('plain text keeps its paragraphs and lines', () =>
  expect(textToHtml('One\r\ntwo\n\n  \n<three>\n')).toBe('<p>One<br>two</p><p>&lt;three&gt;</p>'));
