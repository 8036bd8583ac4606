import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { checkQuotation } from './checking.ts';

const PAGES = [
  { number: 1, text: 'To the Secretary of the Commission.\nThe tide stood high at the Quayside.' },
  {
    number: 2,
    text: 'We pray that the tidal bar-\nrier be not shut upon the ebb, as the Com-\nmissioners did promise us at the Quay-\nside in the spring. The well-known channel is silted.',
  },
  { number: 3, text: 'Nobody had objected, says the minute; the letter lay on the table.' },
];
const check = (words: string, page = 2) => checkQuotation(words, PAGES, page);

describe('a quotation stands on its page', () => {
  test('word for word, across the hyphens of line ends, whatever its case, accents and punctuation', () => {
    for (const words of [
      'that the tidal barrier be not shut upon the ebb',
      '“… not shut upon the EBB, as the Commissioners did promise us …”',
      'the tidal bar-\nrier be not',
      'The well-known channel',
      'the wellknown channel',
      'nót shut',
    ])
      expect([words, check(words).stands]).toEqual([words, 'yes']);
  });

  test('with words left out where it says so, and with words put in between brackets', () => {
    expect(check('that the tidal barrier … did promise us').stands).toBe('yes');
    expect(check('that [the keepers say] the tidal barrier be not shut').stands).toBe('yes');
    expect(check('that the [upper] barrier be not shut').stands).toBe('nearly');
    expect(checkQuotation('as shown in [9] by all', [{ number: 1, text: 'as shown in [9] by all' }], 1).stands).toBe('yes'); // prettier-ignore
    expect(checkQuotation('as shown in [12] by all', [{ number: 1, text: 'as shown in [9] by all' }], 1).stands).toBe('nearly'); // prettier-ignore
    expect(check('did promise us … that the tidal barrier').stands).not.toBe('yes');
  });

  test('and goes on to the next one', () => {
    expect(check('channel is silted. Nobody had objected').stands).toBe('yes');
    expect(check('channel is silted. Nobody had objected', 3).stands).not.toBe('yes');
  });
});

describe('a quotation that is altered is never called right', () => {
  test('nearly: another word is told with the one that stands there, and the mend is what stands there', () => {
    const { stands, differences, asThere } = check('that the tidal barrier be not closed upon the ebb');
    expect([stands, differences, asThere]).toEqual([
      'nearly',
      [{ quoted: 'closed', page: 'shut', misread: false }],
      'that the tidal barrier be not shut upon the ebb',
    ]);
  });

  test('nearly: words that were put in are told, within it and at its end, and what follows on the page is not theirs', () => {
    const put = (words: string): unknown[] => check(words).differences.map((d) => [d.quoted, d.page]);
    expect(put('that the tidal barrier and the bell be not shut upon the ebb')).toEqual([['and the bell', '']]);
    expect(put('the barrier be not shut upon the ebb as the Commissioners did promise xylem')).toEqual([['', 'tidal'], ['xylem', 'us']]); // prettier-ignore
  });

  test('nearly: missing words are told', () => {
    expect(check('that the barrier be not shut the ebb').differences).toEqual([
      { quoted: '', page: 'tidal', misread: false },
      { quoted: '', page: 'upon', misread: false },
    ]);
  });

  test('nearly: a fault of recognition is called one where the page was recognised', () => {
    const page = [
      { number: 2, text: 'be not shut upon the ebb as the Cornrnissioners did prornise', recognised: true },
    ];
    const { stands, differences } = checkQuotation(
      'be not shut upon the ebb as the Commissioners did promise',
      page,
      2,
    );
    expect([stands, differences.map((d) => d.misread)]).toEqual(['nearly', [true, true]]);
  });

  test('no: it stands on another page, which is named, or on none', () => {
    expect(check('Nobody had objected, says the minute')).toMatchObject({ stands: 'no', elsewhere: 3 });
    expect(check('The harbour master had the key of the sluice all along')).toMatchObject({
      stands: 'no',
      elsewhere: null,
    });
    expect(check('', 2).stands).toBe('no');
  });

  test('any word put in place of another in any stretch of a page', () => {
    const words = PAGES[1]!.text.replace(/-\n/g, '').split(/\s+/);
    fc.assert(
      fc.property(fc.nat(words.length - 6), fc.integer({ min: 4, max: 12 }), fc.nat(11), (from, length, at) => {
        const stretch = words.slice(from, from + length);
        expect(check(stretch.join(' ')).stands).toBe('yes');
        const altered = stretch.with(at % stretch.length, 'xylophone');
        expect(check(altered.join(' ')).stands).not.toBe('yes');
      }),
    );
  });
});
