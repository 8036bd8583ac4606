import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { COMMANDS } from './commands.ts';
import { Usage } from './io.ts';

const folder = mkdtempSync(join(tmpdir(), 'pandecta-cli-'));
afterAll(() => rmSync(folder, { recursive: true }));
const file = (name: string, content: string | Uint8Array): string => {
  writeFileSync(join(folder, name), content);
  return join(folder, name);
};

async function run(command: string, positionals: string[], options: Record<string, string> = {}) {
  let out = '';
  let err = '';
  const code = await COMMANDS[command]!.run(positionals, options, {
    out: (t) => void (out += t),
    err: (t) => void (err += t),
  });
  return { code, out, err };
}

const BIB =
  '@article{okonjo2014, author = {Okonjo, Marit}, title = {Who closes the gate}, journal = {Coastal Processes}, year = 2014}\n@book{broken, title = {Open\n';

describe('convert', () => {
  test('writes the format named, and tells what was wrong on the other stream', async () => {
    const { code, out, err } = await run('convert', [file('refs.bib', BIB)], { to: 'ris' });
    expect(code).toBe(0);
    expect(out).toContain('TI  - Who closes the gate\r\n');
    expect(err).toMatch(/refs\.bib:2:\d+: warning: A brace does not close in the entry “broken”/);
  });

  test('gives messages as JSON lines when asked', async () => {
    const { err } = await run('convert', [file('refs.bib', BIB)], { to: 'csl-json', messages: 'json' });
    expect(
      err
        .trim()
        .split('\n')
        .map((l) => JSON.parse(l) as unknown),
    ).toEqual([expect.objectContaining({ rule: 'broken-entry', line: 2, severity: 'warning' })]);
  });

  test('reads a list of printed references when it is told so, and says which entry is none', async () => {
    const list =
      'Okonjo, M. (2014). Who closes the gate? Coastal Processes, 41(3), 1–20.\n\nibid., at 214\n\nTidal Barriers Act 1974, s 12, as it was\n';
    const { code, out, err } = await run('convert', [file('list.txt', list)], { from: 'references', to: 'csl-json' });
    expect([code, (JSON.parse(out) as { title: string }[]).map((r) => r.title)]).toEqual([
      0,
      ['Who closes the gate?', 'Tidal Barriers Act'],
    ]);
    expect(err).toMatch(/list\.txt:3:1: warning: “ibid\., at 214” could not be read as a reference; it was left out/);
  });

  test('reads what a saved page states of itself', async () => {
    const html =
      '<!doctype html><html><head><meta name="citation_title" content="Edges"><meta name="citation_doi" content="10.5555/e"></head></html>';
    const { code, out } = await run('convert', [file('page.html', html)], { to: 'csl-json' });
    expect([code, JSON.parse(out)]).toMatchObject([0, [{ title: 'Edges', DOI: '10.5555/e' }]]);
  });

  test('ends with 1 when nothing could be read', async () => {
    expect(await run('convert', [file('diary.txt', 'Dear diary')], { to: 'ris' })).toMatchObject({ code: 1, out: '' });
  });

  test('wrong usage is told from a wrong file', async () => {
    await expect(run('convert', ['x'], { to: 'docx' })).rejects.toThrow(Usage);
    await expect(run('convert', ['a', 'b'], { to: 'ris' })).rejects.toThrow(Usage);
    await expect(run('convert', [join(folder, 'none.bib')], { to: 'ris' })).rejects.toThrow('There is no file');
  });
});

test('whatever a file holds, convert and bibliography end with 0 or 1, and say something when with 1', async () => {
  const scrap = fc.oneof(
    fc.uint8Array({ maxLength: 120 }),
    fc
      .constantFrom('@book{', 'TY  - JOUR\n', '[{"title":', 'ER  - \n', ' title = {', '"}', '\uFEFF', '\0')
      .map((t) => Buffer.from(t)),
  );
  await fc.assert(
    fc.asyncProperty(fc.array(scrap, { maxLength: 6 }), async (scraps) => {
      const path = file('scraps', Buffer.concat(scraps));
      for (const [command, options] of [
        ['convert', { to: 'csl-json' }],
        ['bibliography', { style: 'ieee' }],
      ] as const) {
        const { code, out, err } = await run(command, [path], options);
        expect(code === 0 ? out : err).not.toBe('');
        expect([0, 1]).toContain(code);
      }
    }),
    { numRuns: 60 },
  );
});

test('what a style prints nothing for is named, with the line it was read from', async () => {
  const path = file('two.bib', '@book{a, title={T}}\n@report{b, title={U}}');
  const { out, err } = await run('bibliography', [path], { style: 'springer-basic-note' });
  expect(out.trim()).toBe('T');
  expect(err).toMatch(/two\.bib:2:1: warning: The style “springer-basic-note” prints nothing for “b”; left out/);
});

describe('as a program', () => {
  const program = join(import.meta.dirname, '../../../scripts/pandecta.mjs');
  const pandecta = (args: string[], input = ''): ReturnType<typeof spawnSync> =>
    spawnSync('node', [program, ...args], { input, encoding: 'utf8', env: { ...process.env, INIT_CWD: folder } });

  test('files are meant where the person stands, "-" is standard input, and the exit code tells', () => {
    file('here.bib', BIB);
    expect(pandecta(['convert', 'here.bib', '--to', 'ris'])).toMatchObject({ status: 0 });
    expect(pandecta(['convert', '-', '--to', 'biblatex'], BIB).stdout).toContain('journaltitle = {Coastal Processes}');
    expect(pandecta(['convert', '-', '--to', 'ris'], 'Dear diary')).toMatchObject({ status: 1, stdout: '' });
    expect(pandecta(['convert', '--onto', 'ris'])).toMatchObject({ status: 2, stdout: '' });
    expect(pandecta(['sharpen'])).toMatchObject({ status: 2, stderr: expect.stringContaining('“sharpen”') as string });
  });
});

test('bibliography formats in a style that is installed', async () => {
  const path = file('one.bib', BIB);
  expect((await run('bibliography', [path], { style: 'apa' })).out).toContain(
    'Okonjo, M. (2014). Who closes the gate. Coastal Processes.',
  );
  expect((await run('bibliography', [path], { style: 'apa', format: 'html' })).out).toContain(
    '<i>Coastal Processes</i>',
  );
  await expect(run('bibliography', [path], { style: 'no-such' })).rejects.toThrow('no style named “no-such”');
});

describe('PDFs', () => {
  let path: string;
  beforeAll(async () => {
    const doc = await PDFDocument.create();
    const font = await doc.embedFont(StandardFonts.TimesRoman);
    doc.addPage([400, 500]).drawText('The Night Watch at the Sluice', { x: 30, y: 400, size: 18, font });
    doc.addPage([400, 500]).drawText('A second page, doi:10.5555/night.1', { x: 30, y: 400, size: 11, font });
    path = file('scan.pdf', await doc.save());
  });

  test('text gives the pages that pdftotext gives, parted by form feeds', async () => {
    const { out } = await run('text', [path]);
    const theirs = execFileSync('pdftotext', [path, '-'], { encoding: 'utf8' });
    const words = (t: string): string[][] => t.split('\f').map((p) => p.split(/\s+/).filter(Boolean));
    expect(words(out)).toEqual(words(theirs));
  });

  test('identify says what was recognised, and where it came from', async () => {
    const { out, err } = await run('identify', [path]);
    expect(JSON.parse(out)).toMatchObject([{ title: 'The Night Watch at the Sluice', DOI: '10.5555/night.1' }]);
    expect(err).toContain('title: from page layout');
  });

  test('a file that is no PDF ends with a sentence', async () => {
    await expect(run('text', [file('no.pdf', 'not a pdf')])).rejects.toThrow('damaged, or is not a PDF');
  });
});

test('styles lists what is installed, by words', async () => {
  expect((await run('styles', ['vancouver'])).out).toMatch(/^vancouver\tnumeric\t/m);
  expect((await run('styles', ['nothing', 'of', 'the', 'sort'])).code).toBe(1);
});

const TWICE =
  '@article{a, author = {OKONJO, Marit}, title = {WHO CLOSES THE GATE AND WHEN}, journal = {Coastal Processes}, year = 2014, pages = {pp. 3--9}}\n@article{b, author = {Okonjo, M.}, title = {Who closes the gate and when}, journal = {Coast. Proc.}, year = 2014, pages = {3}}\n@book{c, author = {Vance, Ines}, title = {Silt}, publisher = {Tern Press}, year = 1999}\n';

describe('match', () => {
  test('says for every record which others are the same work, and why', async () => {
    const out = join(folder, 'clusters.tsv');
    const { code } = await run('match', [file('twice.bib', TWICE)], { out });
    expect(code).toBe(0);
    const lines = readFileSync(out, 'utf8')
      .trim()
      .split('\n')
      .map((l) => l.split('\t'));
    expect(lines[0]).toEqual(['record', 'cluster', 'probability', 'reasons']);
    expect(lines.slice(1).map(([record, cluster]) => [record, cluster])).toEqual([
      ['1', '1'],
      ['2', '1'],
      ['3', '2'],
    ]);
    expect(lines[1]![3]).toContain('same title');
    expect(Number(lines[1]![2])).toBeGreaterThan(0.9);
  });
});

describe('proof', () => {
  test('gives a line of JSON for each finding, by the number of its record', async () => {
    const { code, out } = await run('proof', [file('twice.bib', TWICE)], { style: 'apa' });
    const findings = out
      .trim()
      .split('\n')
      .map((l) => JSON.parse(l) as Record<string, unknown>);
    expect(code).toBe(0);
    expect(findings.filter((f) => f.record === 1).map((f) => f.rule)).toEqual(
      expect.arrayContaining(['title-capitals', 'name-capitals', 'label-in-field', 'missing-part']),
    );
    const capitals = findings.find((f) => f.rule === 'title-capitals')!;
    expect(capitals).toMatchObject({
      id: 'a',
      field: 'title',
      severity: 'looks wrong',
      mend: { title: 'Who closes the gate and when' },
    });
  });

  test('writes all records, in their order, with what is sure mended', async () => {
    const { out } = await run('proof', [file('twice.bib', TWICE)], {
      style: 'apa',
      mend: true as never,
      to: 'csl-json',
    });
    const records = JSON.parse(out) as { title: string; page?: string; author: { family: string }[] }[];
    expect(records.map((r) => r.title)).toEqual([
      'Who closes the gate and when',
      'Who closes the gate and when',
      'Silt',
    ]);
    expect([records[0]!.author[0]!.family, records[0]!.page]).toEqual(['Okonjo', '3-9']);
  });

  test('asks for a style', async () => {
    await expect(run('proof', [file('twice.bib', TWICE)])).rejects.toThrow(Usage);
  });
});

describe('cite', () => {
  test('gives the citation with a page, words around it, and the author as it is asked for', async () => {
    const bib = file('cite.bib', BIB);
    const cite = async (options: Record<string, string>): Promise<string> =>
      (await run('cite', [bib], { style: 'chicago-author-date', key: 'okonjo2014', ...options })).out.trim();
    expect(await cite({ locator: '12', before: 'see' })).toBe('(see Okonjo 2014, 12)');
    expect(await cite({ locator: '33', label: 'paragraph', author: 'in the text' })).toBe('Okonjo (2014, para. 33)');
    await expect(run('cite', [bib], { style: 'apa', key: 'nobody' })).rejects.toThrow('No record has the key “nobody”');
    await expect(run('cite', [bib], { style: 'apa', label: 'colour' })).rejects.toThrow(Usage);
  });
});
