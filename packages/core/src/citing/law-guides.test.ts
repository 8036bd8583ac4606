/** Twenty cases and ten statutes in six styles, each held against the style's own guide (from memory: `testing/law-guides.ts`). */
import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { Citer, htmlToText } from './index.ts';
import { CASES, GUIDES, STATUTES } from '../testing/law-guides.ts';

const FOLDER = '/usr/share/citation-style-language';

describe.each(Object.entries(GUIDES))('%s', (style, lines) => {
  const citer = new Citer(readFileSync(`${FOLDER}/styles/${style}.csl`, 'utf8'), (l) =>
    readFileSync(`${FOLDER}/locales/locales-${l}.xml`, 'utf8'),
  );
  test('prints them as its guide has them, or as is written beside it', () => {
    const printed = [...CASES, ...STATUTES].map((record) => {
      const sources = [{ id: 'a', record }];
      return style === 'apa' ? citer.bibliography(sources).entries[0]!.text : htmlToText(citer.citation(sources));
    });
    expect(printed).toEqual(lines.map((line) => (typeof line === 'string' ? line : line[0])));
  });
});

test('what differs from a guide differs indeed, and says why', () => {
  const differing = Object.values(GUIDES)
    .flat()
    .filter((line) => typeof line !== 'string');
  for (const [printed, guide, why] of differing) {
    expect(printed).not.toBe(guide);
    expect(why).not.toBe('');
  }
});
