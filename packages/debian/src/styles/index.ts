/** The styles and locales installed on this machine. Their heads are read once and kept. */
import { readFileSync } from 'node:fs';
import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { readStyleInfo, USUAL_STYLES, type StyleInfo } from '@pandecta/core/citing';
import { fold } from '@pandecta/core/words';

export class Styles {
  private listing: Promise<Map<string, StyleInfo>> | undefined;

  constructor(private readonly folder: string) {}

  /** The usual ones, or those whose title or name has all the words of `like`; at most 60. */
  async find(like: string): Promise<StyleInfo[]> {
    const words = fold(like).split(/\s+/).filter(Boolean);
    if (!words.length)
      return (await Promise.all(USUAL_STYLES.map((id) => this.get(id)))).filter((s) => s !== undefined);
    const all = await this.all();

    const found: StyleInfo[] = [];
    for (const style of all.values()) {
      const text = fold(`${style.title} ${style.id}`);
      if (words.every((w) => text.includes(w))) found.push(style);
    }
    const rank = (s: StyleInfo): number =>
      (USUAL_STYLES.includes(s.id) ? 0 : 2) + (s.parent ? 1 : 0) + (fold(s.title).startsWith(words[0]!) ? 0 : 0.5);
    return found.sort((a, b) => rank(a) - rank(b) || a.title.localeCompare(b.title)).slice(0, 60);
  }

  /** All styles whose title or name has the words, by name. */
  async list(like: string): Promise<StyleInfo[]> {
    const words = fold(like).split(/\s+/).filter(Boolean);
    const all = [...(await this.all()).values()].filter((s) =>
      words.every((w) => fold(`${s.title} ${s.id}`).includes(w)),
    );
    return all.sort((a, b) => (a.id < b.id ? -1 : 1));
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

  private all(): Promise<Map<string, StyleInfo>> {
    return (this.listing ??= this.read());
  }

  private async read(): Promise<Map<string, StyleInfo>> {
    const out = new Map<string, StyleInfo>();
    for (const sub of ['styles/dependent', 'styles']) {
      const folder = join(this.folder, sub);
      const names = (await readdir(folder).catch(() => [])).filter((n) => n.endsWith('.csl'));
      for (let i = 0; i < names.length; i += 200) {
        await Promise.all(
          names.slice(i, i + 200).map(async (name) => {
            const id = name.slice(0, -4);
            const info = readStyleInfo(id, await readFile(join(folder, name), 'utf8').catch(() => ''));
            if (info) out.set(id, info);
          }),
        );
      }
    }
    return out;
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
