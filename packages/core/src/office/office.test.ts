/** Documents as pandoc writes them, which reads their text back for comparison. */
import { execFileSync } from 'node:child_process';
import { strFromU8, unzipSync, zipSync } from 'fflate';
import { describe, expect, test } from 'vitest';
import { officeFormat, paragraphsOfDocx, paragraphsOfOdt, readOffice } from './index.ts';

const MARKDOWN = `# Who closes the gate

Marshes retreat.^[See Vance, I., 'Silt in small estuaries' (2009) 12 *Coastal Processes* 201; Okonjo, M., *Who Closes the Gate* (Quillback Press 2014) 33.] They were drained.^[Ibid.] The [gauge report](https://hydrography.example/gauge) and doi:10.5555/edge.2024 tell more.^[*Ferrow v Sallow Harbour Board* [1989] 2 WLR 44.]

- a point that is none
- Halvard, R. (2024). Marsh edges in a regulated tide. *Coastal Processes*, 55(1), 12–29.

# References

Ito, K. (2001). *Saltmarsh ecology*. Withy University Press.

Quill, T. (1998). Tidal restriction. *Coastal Processes*, 31(2), 4–19. [link](https://doi.org/10.5555/quill)

# Appendix

Vance, who closes the gate, went home in 2001.
`;

const made = (format: 'docx' | 'odt'): Uint8Array =>
  execFileSync('pandoc', ['-f', 'markdown', '-t', format, '-o', '-'], { input: MARKDOWN });

describe.each(['docx', 'odt'] as const)('a document in %s', (format) => {
  const bytes = made(format);

  test('gives the references of its lists and notes, and the links and identifiers of its text', () => {
    expect(officeFormat(bytes)).toBe(format);
    const { parts, otherNotes } = readOffice(bytes, format);
    expect(parts.map((p) => [p.kind, p.kind === 'reference' ? p.text.slice(0, 12) : p.value])).toEqual(
      expect.arrayContaining([
        ['reference', 'Vance, I., ‘'],
        ['reference', 'Okonjo, M., '],
        ['reference', 'Ferrow v Sal'],
        ['reference', 'Halvard, R. '],
        ['reference', 'Ito, K. (200'],
        ['reference', 'Quill, T. (1'],
        ['link', 'https://hydrography.example/gauge'],
        ['doi', '10.5555/edge.2024'],
      ]),
    );
    expect(parts).toHaveLength(8);
    expect(otherNotes).toBe(1);
  });

  test('has the words pandoc reads from it', () => {
    const plain = execFileSync('pandoc', ['-f', format, '-t', 'plain', '--wrap=none'], {
      input: bytes,
      encoding: 'utf8',
    });
    const words = (text: string): string[] => (text.match(/\p{L}{4,}/gu) ?? []).toSorted();
    const ours = (format === 'docx' ? paragraphsOfDocx : paragraphsOfOdt)(bytes).map((p) => p.text);
    expect(words(ours.join(' '))).toEqual(words(plain));
  });

  test('that is damaged, or declares entities, is refused with the reason', () => {
    expect(() => readOffice(bytes.subarray(0, bytes.length / 2), format)).toThrow();
    const main = format === 'docx' ? 'word/document.xml' : 'content.xml';
    const files = unzipSync(bytes);
    files[main] = new TextEncoder().encode(
      strFromU8(files[main]!).replace(/(<\?xml[^>]*\?>)?/, '$1<!DOCTYPE x [<!ENTITY a SYSTEM "file:///etc/passwd">]>'),
    );
    expect(() => readOffice(zipSync(files), format)).toThrow('entities of its own');
  });
});
