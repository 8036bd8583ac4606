/** What came from the archive as pictures: a folder of forty letters, and eight letters by themselves, three of them poor. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import {
  concatTransformationMatrix,
  drawObject,
  PDFDocument,
  popGraphicsState,
  pushGraphicsState,
  StandardFonts,
} from '@cantoo/pdf-lib';
import type { SourceRecord } from '@pandecta/core/source';
import type { Access } from '../apps/server/src/access/principal.ts';
import { addFile } from '../apps/server/src/files/of-source.ts';
import type { Services } from '../apps/server/src/services.ts';
import { addByHand } from '../apps/server/src/sources/service.ts';
import { sortPage } from '../apps/server/src/sources/sorting.ts';
import { rows, text } from '../apps/server/src/database/read.ts';
import { sql } from 'drizzle-orm';
import { jobEnds } from './ended.ts';
import { Chance } from './scenario/random.ts';

const [WIDTH, HEIGHT] = [420, 595];
const WRITERS = ['Ada Penhallow', 'Joseph Farrow', 'Silas Brede', 'Hester Quay', 'Matthew Loam', 'Anne Withy', 'Job Sedgwick', 'Tamsin Reed']; // prettier-ignore
const PLACES = ['Sallow Quay', 'Ferrow Point', 'the Lower Gate', 'Northmere', 'Withy Bank'];
const MONTHS = ['January', 'February', 'March', 'April', 'May'];
const BODY = [
  'The boatmen of Ferrow Point beg leave to remind the Commission that the tidal gate was not to be shut upon the ebb.',
  'The Commissioners did promise us at the quayside in the spring of last year that notice would be given.',
  'No notice was given to any man whose boat lay within, and three of them lost the tide.',
  'The keeper says that he has his orders from the clerk, and the clerk says that he has given none.',
  'My meadow stood under water for nine days, and the hay of the lower field is lost.',
  'I have written down the hours at which the gate was shut, and enclose the paper herewith.',
  'If the gate is to be kept shut at night, let it be said who keeps the key.',
  'We ask for no more than was promised, and for no less.',
  'The dues were paid at Lady Day, and the receipt lies with the harbour master.',
  'The widow of the late keeper has had no answer to her petition of November.',
  'It is said here that the new barrier will be built in any case, whatever the tenants may say.',
  'The stones that were fetched for the quay lie where they were left, and the road is spoilt.',
];

export interface Letter {
  writer: string;
  place: string;
  day: number;
  month: number;
  lines: string[];
}

export function letters(count: number, seed: number): Letter[] {
  const chance = new Chance(seed);
  return Array.from({ length: count }, (_, i) => ({
    writer: chance.pick(WRITERS),
    place: chance.pick(PLACES),
    day: chance.int(1, 28),
    month: Math.min(4, Math.floor((i / count) * 5)),
    lines: chance.some(BODY, chance.int(4, 7)),
  }));
}

/** Each letter on a page of its own, as it was set before it was pictured. */
export async function lettersPdf(all: Letter[]): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.TimesRomanItalic);
  doc.setCreationDate(new Date(Date.UTC(2026, 2, 2)));
  for (const { writer, place, day, month, lines } of all) {
    const page = doc.addPage([WIDTH, HEIGHT]);
    let y = HEIGHT - 70;
    const line = (said: string, x = 52, gap = 18): void => {
      page.drawText(said, { x, y, size: 12, font });
      y -= gap;
    };
    line(`${place}, ${day} ${MONTHS[month]} 1872`, 220, 34);
    line('To the Commissioners of the Harbour', 52, 26);
    line('Gentlemen,', 52, 22);
    let row = '';
    for (const word of lines.join(' ').split(' ')) {
      if (row && font.widthOfTextAtSize(`${row} ${word}`, 12) > WIDTH - 104) {
        line(row);
        row = word;
      } else row = row ? `${row} ${word}` : word;
    }
    line(row, 52, 34);
    line('Your obedient servant,', 220);
    line(writer, 220);
  }
  return doc.save();
}

export interface Fault {
  /** In degrees. */
  turn: number;
  /** Of so many of a thousand specks a speck is black. */
  specks: number;
  /** From 0, as black as ink, to 1, as white as paper. */
  faded: number;
  /** Dots an inch. */
  resolution: number;
}

/** Pages as pictures a scanner made, upright and clean or not. */
export async function pictured(pdf: Uint8Array, { turn, specks, faded, resolution }: Fault): Promise<Uint8Array> {
  const chance = new Chance(17);
  const folder = mkdtempSync(join(tmpdir(), 'pandecta-letters-'));
  try {
    writeFileSync(join(folder, 'in.pdf'), pdf);
    execFileSync('pdftoppm', ['-r', String(resolution), '-gray', join(folder, 'in.pdf'), join(folder, 'page')]);
    const doc = await PDFDocument.create();
    doc.setCreationDate(new Date(Date.UTC(2026, 2, 2)));
    for (const name of readdirSync(folder)
      .filter((n) => n.endsWith('.pgm'))
      .sort()) {
      const { width, height, dots } = grey(readFileSync(join(folder, name)));
      for (let i = 0; i < dots.length; i += 1) {
        const light = dots[i]! + (235 - dots[i]!) * faded;
        dots[i] = chance.next() * 1000 < specks ? chance.int(60, 140) : Math.min(255, Math.round(light));
      }
      const image = doc.context.flateStream(dots, { Type: 'XObject', Subtype: 'Image', Width: width, Height: height, ColorSpace: 'DeviceGray', BitsPerComponent: 8 }); // prettier-ignore
      const page = doc.addPage([WIDTH, HEIGHT]);
      const key = page.node.newXObject('Scan', doc.context.register(image));
      const angle = (turn * Math.PI) / 180;
      const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
      // About the middle of the page.
      const [cx, cy] = [WIDTH / 2, HEIGHT / 2];
      page.pushOperators(
        pushGraphicsState(),
        concatTransformationMatrix(cos, sin, -sin, cos, cx - cos * cx + sin * cy, cy - sin * cx - cos * cy),
        concatTransformationMatrix(WIDTH, 0, 0, HEIGHT, 0, 0),
        drawObject(key),
        popGraphicsState(),
      );
    }
    return await doc.save();
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** A picture of the format PGM, binary (netpbm). */
function grey(file: Buffer): { width: number; height: number; dots: Buffer } {
  const head = /^P5\s+(\d+)\s+(\d+)\s+\d+\s/.exec(file.subarray(0, 60).toString('latin1'))!;
  return { width: Number(head[1]), height: Number(head[2]), dots: Buffer.from(file.subarray(head[0].length)) };
}

/** The words as they were set, with the picture of the page over them: as a scanner delivers it that recognises by itself. */
export async function withPictures(pdf: Uint8Array): Promise<Uint8Array> {
  const folder = mkdtempSync(join(tmpdir(), 'pandecta-folder-'));
  try {
    writeFileSync(join(folder, 'in.pdf'), pdf);
    execFileSync('pdftoppm', ['-r', '80', '-gray', '-jpeg', join(folder, 'in.pdf'), join(folder, 'page')]);
    const doc = await PDFDocument.load(pdf);
    const names = readdirSync(folder)
      .filter((n) => n.endsWith('.jpg'))
      .sort();
    for (const [i, page] of doc.getPages().entries()) {
      const picture = await doc.embedJpg(readFileSync(join(folder, names[i]!)));
      page.drawImage(picture, { x: 0, y: 0, width: WIDTH, height: HEIGHT });
    }
    return await doc.save();
  } finally {
    rmSync(folder, { recursive: true });
  }
}

const CLEAN: Fault = { turn: 0, specks: 0, faded: 0, resolution: 150 };
/** Laid askew, faded, and speckled. */
export const POOR: Fault[] = [
  { turn: 2.4, specks: 0, faded: 0.25, resolution: 150 },
  { turn: 0.4, specks: 1, faded: 0.62, resolution: 150 },
  { turn: -1.2, specks: 6, faded: 0.3, resolution: 130 },
];

/** The archive's own papers, as the inquiry's historian brought them back. */
export async function bringScans(services: Services, actor: Access, workspaceId: string): Promise<void> {
  const archived = { archive: 'Sallow Quay Archive', archive_collection: 'Harbour Commission papers' };
  const add = async (
    record: SourceRecord,
    name: string,
    content: Uint8Array,
  ): Promise<{ source: string; file: string }> => {
    const { id } = await addByHand(services, actor, { ...record });
    const stored = await services.storage.put(Readable.from([Buffer.from(content)]));
    const call = { actor, workspace: { id: workspaceId } } as unknown as Parameters<typeof addFile>[1];
    const { jobId } = await addFile(services, call, { source: id!, ...stored, name, instead: null });
    if (jobId) await jobEnds(services.db, workspaceId, jobId);
    const [file] = await rows(
      services.db,
      { id: text() },
      sql`select f.id from files f join source_files sf on sf.workspace_id = f.workspace_id and sf.file_id = f.id
        where f.workspace_id = ${workspaceId} and sf.source_id = ${id!} and f.state = 'text' limit 1`,
    );
    return { source: id!, file: file?.id ?? '' };
  };
  const folder = await add(
    {
      type: 'manuscript',
      title: 'Letters to the Harbour Commission, January to May 1872',
      author: [{ literal: 'Tenants and boatmen of the Sallow' }],
      genre: 'Letters',
      ...archived,
      archive_location: 'Box 9, folder 3',
      issued: {
        'date-parts': [
          [1872, 1],
          [1872, 5],
        ],
      },
    } as SourceRecord,
    'box-9-folder-3.pdf',
    await withPictures(await lettersPdf(letters(40, 1872))),
  );
  const call = { actor, workspace: { id: workspaceId } } as unknown as Parameters<typeof sortPage>[1];
  for (const [page, what] of [
    [2, { used: true }],
    [5, { used: true, tag: 'promise of 1872' }],
    [7, { check: true }],
    [11, { tag: 'meadow' }],
  ] as const)
    await sortPage(services, call, folder.source, folder.file, { page, ...what });
  for (const [i, letter] of letters(8, 1904).entries()) {
    const [given, family] = letter.writer.split(' ');
    await add(
      {
        type: 'personal_communication',
        title: `Letter of ${letter.writer} to the Commissioners`,
        author: [{ given, family }],
        recipient: [{ literal: 'Harbour Commission' }],
        genre: 'Letter',
        ...archived,
        archive_location: 'Box 9, folder 4',
        issued: { 'date-parts': [[1872, letter.month + 1, letter.day]] },
      } as SourceRecord,
      `box-9-folder-4-${String(i + 1).padStart(2, '0')}.pdf`,
      await pictured(await lettersPdf([letter]), POOR[i - 5] ?? CLEAN),
    );
  }
}
