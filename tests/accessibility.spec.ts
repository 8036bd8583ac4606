/** Every main view, light and dark, beside the rules of WCAG 2.2 AA that axe-core can check. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { expect, test, type Page } from './world.ts';
import { ask, ledger, line, more, signIn, slip } from './person.ts';

const AXE = createRequire(import.meta.url).resolve('axe-core/axe.min.js');

interface Violation {
  id: string;
  help: string;
  nodes: { html: string; failureSummary: string }[];
}

/** What the rules say against the page as it stands, a line each. */
async function violations(page: Page): Promise<string[]> {
  // Evaluated, not added as a script: the page's own policy rightly lets no strange script in.
  await page.evaluate(readFileSync(AXE, 'utf8'));
  const found = await page.evaluate(async () => {
    const { axe } = window as unknown as {
      axe: { run(where: object, how: object): Promise<{ violations: Violation[] }> };
    };
    // pdf.js measures glyphs on a canvas that nobody sees.
    const run = await axe.run(
      { include: [['body']], exclude: [['.hiddenCanvasElement']] },
      {
        runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'],
        // Of the rules beside the standard's: what one sees is what one says, and a page has a heading and regions.
        rules: {
          'label-content-name-mismatch': { enabled: true },
          'page-has-heading-one': { enabled: true },
          region: { enabled: true },
        },
      },
    );
    return run.violations;
  });
  return found.flatMap((v) =>
    v.nodes.slice(0, 3).map((n) => `${v.id}: ${v.help}: ${n.html.slice(0, 160)} ${n.failureSummary.slice(0, 300)}`),
  );
}

/** Opens a document, and one of the ways to work on it. */
async function openMenu(page: Page, entry: string, question?: string): Promise<void> {
  await openReader(page, question);
  await more(page, entry);
}

async function openReader(page: Page, question = 'barrier file:text'): Promise<void> {
  await ask(page, question);
  await ledger(page).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: /^Page/ }).first()).toBeVisible();
  await expect(page.getByRole('heading', { name: 'This source' })).toBeVisible();
}

const VIEWS: Record<string, (page: Page) => Promise<void>> = {
  'pictures put together as one document': async (page) => {
    await ask(page, 'kind:book');
    await ledger(page).getByRole('option').first().click();
    await slip(page).getByRole('button', { name: '+ pictures' }).click();
    const sheet = page.getByRole('dialog', { name: 'Pictures as one document' });
    await sheet.getByLabel('Pictures of pages').setInputFiles('docs/screenshots/read.png');
    await expect(sheet.getByRole('listitem')).toHaveCount(1);
  },
  'recognising a scan anew': async (page) => {
    await openMenu(page, 'Recognise the text anew…', 'file:"folder-4-02"');
    await expect(page.getByRole('checkbox', { name: 'English' })).toBeVisible();
  },
  'the archives': async (page) => {
    await page.goto('/sources/archives');
    await expect(page.getByRole('heading', { name: 'Sallow Quay Archive' })).toBeVisible();
  },
  'the sources with a search': async (page) => ask(page, 'barrier'),
  'the record being edited': async (page) => {
    await ask(page, 'barrier kind:article');
    await ledger(page).getByRole('option').first().click();
    await slip(page).getByRole('button', { name: 'Edit record' }).click();
    await expect(page.getByLabel('Title', { exact: true })).toBeVisible();
  },
  'several selected': async (page) => {
    await ledger(page).focus();
    await page.keyboard.press('Shift+ArrowDown');
    await expect(page.getByRole('heading', { name: '2 sources' })).toBeVisible();
  },
  'filing by name': async (page) => {
    await ledger(page).focus();
    await page.keyboard.press('f');
    await expect(page.getByRole('combobox', { name: 'Name of a collection' })).toBeVisible();
  },
  'the list of keys': async (page) => {
    await ledger(page).focus();
    await page.keyboard.press('?');
    await expect(page.getByRole('heading', { name: 'Keys' })).toBeVisible();
  },
  'the intake, one chosen beside what is here': async (page) => {
    await page.getByRole('link', { name: /^Gather/ }).click();
    await page.getByRole('textbox', { name: 'Identifiers, references, links' }).fill('10.5555/x and 978-0-00-712345-?');
    await page
      .getByRole('option', { name: /here already/ })
      .first()
      .click();
    await expect(page.getByRole('table', { name: 'Coming in, and here' })).toBeVisible();
    await expect(page.getByText('check digit wrong')).toBeVisible();
  },
  'what was found outside': async (page) => {
    await page.goto('/gather');
    await page.getByRole('link', { name: /^tidal gate licence/ }).click();
    await page.getByRole('listbox', { name: 'Works found' }).getByRole('option').first().click();
    await expect(page.getByRole('heading', { name: 'Found in' })).toBeVisible();
  },
  'the log of searches': async (page) => {
    await page.goto('/gather/log');
    await expect(page.getByText(/records? found.*duplicates? removed/)).toBeVisible();
  },
  'watching an address': async (page) => {
    await page.goto('/gather');
    await page.getByRole('button', { name: 'Watch an address…' }).click();
    await expect(page.getByLabel('Name of the watch')).toBeVisible();
  },
  'the report of a gathering': async (page) => {
    await page.goto('/gather');
    await page.getByRole('region', { name: 'Gathered before' }).getByRole('link').first().click();
    await expect(page.getByRole('heading', { name: 'Files' })).toBeVisible();
  },
  'the reader': (page) => openReader(page),
  'a mark that is open': async (page) => {
    await VIEWS['marks across sources']!(page);
    await page.getByRole('list', { name: 'Marks' }).getByRole('link').first().click();
    await expect(page.getByRole('textbox', { name: /^Gloss on/ })).toBeVisible();
  },
  'marks across sources': async (page) => {
    await page.goto('/read/marks');
    await expect(page.getByRole('list', { name: 'Marks' }).getByRole('listitem').first()).toBeVisible();
  },
  'the text of a document, plain': async (page) => {
    await openMenu(page, 'Plain reading');
    await expect(
      page
        .getByRole('document', { name: 'Text of the document' })
        .getByText(/barrier/)
        .first(),
    ).toBeVisible();
  },
  'the text of a page being corrected': async (page) => {
    await openMenu(page, 'Correct the text');
    await expect(page.getByRole('textbox', { name: /^Line 1:/ })).toBeVisible();
  },
  'the contact sheet': async (page) => {
    await openMenu(page, 'Contact sheet');
    await expect(page.getByRole('listbox', { name: 'Pages' }).getByRole('option').first()).toBeVisible();
  },
  'pages one by one': async (page) => {
    await VIEWS['the contact sheet']!(page);
    await page.getByRole('button', { name: 'Page by page' }).click();
    await expect(page.getByRole('img', { name: /^Page/ })).toBeVisible();
  },
  'two documents side by side': async (page) => {
    await VIEWS['the reader']!(page);
    await page.getByRole('button', { name: 'Show another beside' }).click();
    await page.getByRole('menuitem', { name: 'This document a second time' }).click();
    await expect(page.getByRole('group', { name: 'Right document' }).getByRole('slider')).toBeVisible();
  },
  'a filter of marks': async (page) => {
    await VIEWS['a mark that is open']!(page);
    await page.getByRole('button', { name: 'Filter the marks' }).click();
    await expect(page.getByLabel('Words in the mark or its gloss')).toBeVisible();
  },
  'the senses of marks': async (page) => {
    await openMenu(page, 'Senses of marks…');
    await expect(page.getByRole('heading', { name: 'Senses of marks' })).toBeVisible();
  },
  'notes with one open': async (page) => {
    await page.goto('/notes');
    await page.getByRole('list', { name: 'Notes' }).getByRole('button', { name: 'Petition of the boatmen' }).click();
    await expect(page.getByRole('textbox', { name: 'Text of the note' })).toBeVisible();
    await expect(page.getByRole('application', { name: /^Web of/ })).toBeVisible();
  },
  'notes in time': async (page) => {
    await page.goto('/notes?view=timeline');
    await expect(
      page
        .getByRole('group', { name: /^Timeline/ })
        .getByRole('button')
        .first(),
    ).toBeVisible();
  },
  'notes as a web, and its table': async (page) => {
    await page.goto('/notes?view=web');
    await page.getByRole('button', { name: 'As a table' }).click();
    await expect(page.getByRole('table', { name: 'What is tied to what' })).toBeVisible();
  },
  'an outline of notes': async (page) => {
    await page.goto('/notes?view=outlines');
    await expect(page.getByRole('list', { name: 'Brief: who must close' })).toBeVisible();
  },
  'a heading, edited': async (page) => {
    await page.goto('/notes');
    await page.getByRole('button', { name: 'The page of Harbour Commission' }).click();
    await page.getByRole('button', { name: 'Edit', exact: true }).click();
    await expect(page.getByRole('textbox', { name: 'Other names, one a line' })).toBeVisible();
  },
  'a note beside a document': async (page) => {
    await openReader(page);
    await page.keyboard.press('n');
    await expect(page.getByRole('textbox', { name: 'Title of the note' })).toBeVisible();
  },
  'a source on a page of its own': async (page) => {
    await ask(page, 'title:"Who Closes the Gate"');
    await page.getByRole('link', { name: 'Whole page' }).click();
    await expect(page.getByRole('region', { name: 'Relations' }).getByRole('listitem').first()).toBeVisible();
  },
  'collections compared': async (page) => {
    await page.getByRole('group', { name: 'Chapter 2' }).first().hover();
    await page.getByRole('button', { name: 'What to do with Chapter 2' }).click();
    await page.getByRole('menuitem', { name: 'Compare with…' }).click();
    await page.getByRole('combobox', { name: 'Name of a collection' }).fill('operators');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('table').getByRole('row').nth(1)).toBeVisible();
  },
  'a field of several': async (page) => {
    await ledger(page).focus();
    await page.keyboard.press('Control+a');
    await page.getByRole('button', { name: 'Fields…' }).click();
    await page.getByRole('dialog').getByRole('textbox', { name: 'Value' }).fill('en');
    await expect(page.getByText(/would change/).first()).toBeVisible();
  },
  'nothing found': async (page) => {
    await ask(page, 'tag:nosuchtag');
    await expect(page.getByRole('heading', { name: 'No source matches' })).toBeVisible();
  },
};

for (const colorScheme of ['light', 'dark'] as const) {
  test.describe(colorScheme, () => {
    test.use({ colorScheme });
    test('signing in', async ({ page }) => {
      await page.goto('/');
      await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible();
      expect(await violations(page)).toEqual([]);
    });
    test('the kit, in all its states', async ({ page }) => {
      await page.goto('/kit.html');
      await expect(page.getByRole('heading', { name: 'The kit' })).toBeVisible();
      expect(await violations(page)).toEqual([]);
      for (const opens of ['Menu', 'Popover', 'Choose by name…', 'Side sheet', 'Cancel']) {
        await page.getByRole('button', { name: opens, exact: true }).click();
        expect(await violations(page)).toEqual([]);
        await page.keyboard.press('Escape');
      }
      await page.getByRole('combobox', { name: 'Name it' }).fill('ch');
      await expect(page.getByRole('option', { name: 'Chapter 1' })).toBeVisible();
      expect(await violations(page)).toEqual([]);
    });
    for (const [name, go] of Object.entries(VIEWS)) {
      test(name, async ({ page }) => {
        await signIn(page);
        await expect(line(page, /./).first()).toBeVisible();
        await go(page);
        expect(await violations(page)).toEqual([]);
      });
    }
  });
}
