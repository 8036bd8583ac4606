/** The styles and locales installed on this machine. Their heads are read once and kept. */
import { readdirSync, readFileSync } from 'node:fs';
import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { readStyleInfo, USUAL_STYLES, type StyleInfo } from '@pandecta/core/citing';
import { fold } from '@pandecta/core/words';

/** A style with what is looked in for words, folded. */
interface Listed {
  style: StyleInfo;
  text: string;
  title: string;
}

export class Styles {
  private listing: Promise<Listed[]> | undefined;

  /** @param heads reads the heads of all styles: half a second and more, which a server has done elsewhere */
  constructor(
    private readonly folder: string,
    private readonly heads: (folder: string) => StyleInfo[] | Promise<StyleInfo[]> = styleHeads,
  ) {}

  /** The usual ones, or those whose title or name has all the words of `like`; at most 60. */
  async find(like: string): Promise<StyleInfo[]> {
    const all = this.all();
    const words = wordsOf(like);
    if (!words.length) {
      // They are there without the others, which whoever types next asks for.
      all.catch(() => {});
      return (await Promise.all(USUAL_STYLES.map((id) => this.get(id)))).filter((s) => s !== undefined);
    }
    const rank = ({ style: s, title }: Listed): number =>
      (USUAL_STYLES.includes(s.id) ? 0 : 2) + (s.parent ? 1 : 0) + (title.startsWith(words[0]!) ? 0 : 0.5);
    return having(await all, words)
      .map((one) => ({ ...one, rank: rank(one) }))
      .sort((a, b) => a.rank - b.rank || a.style.title.localeCompare(b.style.title))
      .slice(0, 60)
      .map(({ style }) => style);
  }

  /** All styles whose title or name has the words, by name. */
  async list(like: string): Promise<StyleInfo[]> {
    const found = having(await this.all(), wordsOf(like)).map(({ style }) => style);
    return found.sort((a, b) => (a.id < b.id ? -1 : 1));
  }

  /** One style by its name; reads its file alone. */
  async get(id: string): Promise<StyleInfo | undefined> {
    for (const sub of ['styles', 'styles/dependent']) {
      const xml = await readFile(join(this.folder, sub, `${id}.csl`), 'utf8').catch(() => undefined);
      if (xml) return readStyleInfo(id, xml);
    }
    return undefined;
  }

  async locales(): Promise<string[]> {
    const names = await readdir(join(this.folder, 'locales')).catch(() => []);
    return names.flatMap((n) => /^locales-(.+)\.xml$/.exec(n)?.[1] ?? []).sort();
  }

  private all(): Promise<Listed[]> {
    return (this.listing ??= this.read().catch((error: unknown) => {
      this.listing = undefined;
      throw error;
    }));
  }

  private async read(): Promise<Listed[]> {
    return (await this.heads(this.folder)).map((style) => ({
      style,
      text: fold(`${style.title} ${style.id}`),
      title: fold(style.title),
    }));
  }
}

const wordsOf = (like: string): string[] => fold(like).split(/\s+/).filter(Boolean);
const having = (all: Listed[], words: string[]): Listed[] => all.filter((l) => words.every((w) => l.text.includes(w)));

/** The heads of all styles in a folder; of two of a name that with rules of its own. */
export function styleHeads(folder: string): StyleInfo[] {
  const out = new Map<string, StyleInfo>();
  for (const sub of ['styles/dependent', 'styles'])
    for (const name of namesIn(join(folder, sub))) {
      if (!name.endsWith('.csl')) continue;
      const id = name.slice(0, -4);
      const info = readStyleInfo(id, read(join(folder, sub, name)) ?? '');
      if (info) out.set(id, info);
    }
  return [...out.values()];
}

function namesIn(folder: string): string[] {
  try {
    return readdirSync(folder);
  } catch {
    return [];
  }
}

/** Where Debian's packages put styles and locales. */
export const STYLES_FOLDER = '/usr/share/citation-style-language';

/**
 * The XML of a style, or of the one whose rules it uses, and the language it is made for (US English where it names
 * none). @throws when there is no such style
 */
export function styleRules(folder: string, style: string): { xml: string; language: string } {
  const own = read(join(folder, 'styles', `${style}.csl`)) ?? read(join(folder, 'styles', 'dependent', `${style}.csl`));
  if (!own) throw new Error(`There is no style named “${style}” in ${folder}.`);
  const info = readStyleInfo(style, own);
  const xml = info?.parent ? (read(join(folder, 'styles', `${info.parent}.csl`)) ?? own) : own;
  return { xml, language: info?.language ?? readStyleInfo(style, xml)?.language ?? 'en-US' };
}

/** The XML of a locale such as "en-GB"; undefined when it is not installed. */
export function localeXml(folder: string, language: string): string | undefined {
  return read(join(folder, 'locales', `locales-${language}.xml`));
}

function read(path: string): string | undefined {
  try {
    return readFileSync(path, 'utf8');
  } catch {
    return undefined;
  }
}
