/** The styles and locales of Debian's packages citation-style-language-styles and -locales. */
import { beforeAll, describe, expect, test, vi } from 'vitest';
import { USUAL_STYLES, type StyleInfo } from '@pandecta/core/citing';
import { localeXml, styleRules, Styles, STYLES_FOLDER } from './index.ts';

const styles = new Styles(STYLES_FOLDER);
// Ten thousand small files, read once.
beforeAll(() => styles.list(''), 120_000);

describe('finding a style', () => {
  test('without words the usual ones come, every one of them installed, in their order', async () => {
    expect((await styles.find('')).map((s) => s.id)).toEqual(USUAL_STYLES);
    expect(new Set((await styles.find('')).map((s) => s.manner))).toEqual(
      new Set(['author-date', 'numeric', 'note', 'author']),
    );
  });

  test('every word must stand in its title or its name, whatever the case and the accents', async () => {
    const found = await styles.find('HARVARD  université');
    for (const s of found) expect(`${s.title} ${s.id}`.toLowerCase()).toMatch(/harvard/);
    expect(await styles.find('harvard no-such-word')).toEqual([]);
    expect(await styles.find('revista geologia')).toEqual(await styles.find('geología REVISTA'));
  });

  test('the usual ones lead, and those with rules of their own come before those that borrow them', async () => {
    const found = await styles.find('chicago');
    expect(USUAL_STYLES).toContain(found[0]!.id);
    const kinds = (await styles.find('american')).map((s) => Boolean(s.parent) && !USUAL_STYLES.includes(s.id));
    expect(kinds).toEqual(kinds.toSorted((a, b) => Number(a) - Number(b)));
    expect(found.length).toBeLessThanOrEqual(60);
  });

  test('the whole list is in order of names, each once', async () => {
    const ids = (await styles.list('')).map((s) => s.id);
    expect(ids.length).toBeGreaterThan(2000);
    expect(ids).toEqual([...new Set(ids)].sort());
    expect((await styles.list('vancouver brackets')).every((s) => /vancouver/i.test(`${s.title} ${s.id}`))).toBe(true);
  });

  test('one is read by its name alone; a name nobody has is none', async () => {
    expect(await styles.get('chicago-author-date')).toMatchObject({ manner: 'author-date' });
    expect(await styles.get('no-such-style')).toBeUndefined();
  });
});

describe('the rules of a style', () => {
  test('of one that borrows them are those of the style it names', async () => {
    const borrowing = (await styles.list('')).find((s) => s.parent)!;
    expect(styleRules(STYLES_FOLDER, borrowing.id).xml).toBe(styleRules(STYLES_FOLDER, borrowing.parent!).xml);
  });

  test('come with the language the style is made for', async () => {
    const german = (await styles.list('')).find((s) => s.language === 'de-DE')!;
    expect(styleRules(STYLES_FOLDER, german.id).language).toBe('de-DE');
    expect(styleRules(STYLES_FOLDER, 'ieee').language).toBe('en-US');
  });

  test('that is not there are told by the name that was asked for', () => {
    expect(() => styleRules(STYLES_FOLDER, 'no-such-style')).toThrow('no style named “no-such-style”');
  });
});

test('locales are there by their language, and one that is not is none', async () => {
  const all = await styles.locales();
  expect(all).toEqual(expect.arrayContaining(['de-DE', 'en-GB', 'en-US', 'fr-FR']));
  expect(all).toEqual(all.toSorted());
  for (const language of all) expect(localeXml(STYLES_FOLDER, language)).toContain('<locale');
  expect(localeXml(STYLES_FOLDER, 'xx-XX')).toBeUndefined();
});

test('reading them all is begun when the usual ones are asked for, once, and anew where it failed', async () => {
  const heads = vi
    .fn<(folder: string) => Promise<StyleInfo[]>>()
    .mockRejectedValueOnce(new Error('took too long'))
    .mockResolvedValue([{ id: 'tidal', title: 'Tidal Studies', manner: 'note' }]);
  const mine = new Styles(STYLES_FOLDER, heads);
  expect((await mine.find('')).map((s) => s.id)).toEqual(USUAL_STYLES);
  expect((await mine.find('tidal')).map((s) => s.id)).toEqual(['tidal']);
  await mine.find('tidal studies');
  expect(heads.mock.calls).toEqual([[STYLES_FOLDER], [STYLES_FOLDER]]);
});

test('a folder without styles has none, and says so', async () => {
  const none = new Styles('/nonexistent');
  expect([await none.find('harvard'), await none.list(''), await none.locales()]).toEqual([[], [], []]);
});
