/**
 * What can be done by a key or by name: one table, which the keys, the list of keys, the palette and menus read. A stage
 * binds the deeds of those that are its own while it is on screen.
 */
import { onScopeDispose, shallowReactive, watch } from 'vue';
import type { Action } from '@pandecta/contract';
import { useSession } from '../session/store.ts';
import { isTyping } from './typing.ts';

export const PLACES = ['Everywhere', 'In the ledger', 'In the intake', 'In Check', 'In the reader'] as const;

export interface Command {
  id: string;
  /** As the palette says it. */
  name: string;
  /** As KeyboardEvent.key has them, after “Ctrl ” or “Shift ”; any of them does it. */
  keys?: readonly string[];
  /** Where its keys are listed. */
  where?: (typeof PLACES)[number];
  /** What the list of keys says, where that is another thing than its name. */
  does?: string;
  /** Who may. */
  may?: Action;
  /** Only by its keys: by name it would mean nothing. */
  byKey?: true;
}

export const COMMANDS = [
  { id: 'to-sources', name: 'Go to Sources' },
  { id: 'to-gather', name: 'Go to Gather: add sources' },
  { id: 'to-check', name: 'Go to Check: duplicates, proofing, filing' },
  { id: 'to-proofing', name: 'Go to Proofing: what citations miss' },
  { id: 'to-read', name: 'Go to Read' },
  { id: 'to-notes', name: 'Go to Notes' },
  { id: 'activity', name: 'Show the history of the workspace' },
  { id: 'archives', name: 'Show the archives: by box and folder' },
  { id: 'vocabulary', name: 'Show the vocabulary: tags and subject terms' },
  { id: 'loose', name: 'Show sources in no collection' },
  { id: 'starred', name: 'Show what you starred' },
  { id: 'bin', name: 'Show the bin' },
  {
    id: 'bring-in',
    name: 'Bring in what you type or paste',
    keys: ['b'],
    where: 'Everywhere',
    does: 'bring in: identifiers, references, links; pasting does the same',
    may: 'gather',
  },
  { id: 'build', name: 'Build a question from rows' },
  { id: 'ask', name: 'To the ask line', keys: ['/'], where: 'Everywhere', does: 'to the ask line; Esc leaves it' },
  {
    id: 'palette',
    name: 'Commands',
    keys: ['Ctrl k'],
    where: 'Everywhere',
    does: 'any command or source by name',
    byKey: true,
  },
  { id: 'undo', name: 'Undo', keys: ['Ctrl z'], where: 'Everywhere', may: 'own' },
  { id: 'redo', name: 'Do again', keys: ['Ctrl Shift z'], where: 'Everywhere', may: 'own' },
  { id: 'keys', name: 'The list of keys', keys: ['?'], where: 'Everywhere', does: 'this list' },
  { id: 'password', name: 'Change your password' },
  { id: 'sign-out', name: 'Sign out' },

  { id: 'next', name: 'Next source', keys: ['j', 'ArrowDown'], where: 'In the ledger', byKey: true },
  { id: 'previous', name: 'Previous source', keys: ['k', 'ArrowUp'], where: 'In the ledger', byKey: true },
  {
    id: 'select-on',
    name: 'Select as you go',
    keys: ['Shift ArrowDown', 'Shift ArrowUp'],
    where: 'In the ledger',
    byKey: true,
  },
  {
    id: 'page',
    name: 'Ten sources on, or back',
    keys: ['PageDown', 'PageUp'],
    where: 'In the ledger',
    byKey: true,
  },
  { id: 'ends', name: 'First and last source', keys: ['Home', 'End'], where: 'In the ledger', byKey: true },
  { id: 'select', name: 'Select or unselect the source', keys: ['x'], where: 'In the ledger' },
  { id: 'select-all', name: 'Select all that match', keys: ['Ctrl a'], where: 'In the ledger' },
  { id: 'unselect', name: 'Unselect all', keys: ['X'], where: 'In the ledger' },
  { id: 'open', name: 'Open the document', keys: ['Enter'], where: 'In the ledger' },
  { id: 'file', name: 'File to collections', keys: ['f'], where: 'In the ledger', may: 'edit' },
  { id: 'move', name: 'Move to other collections', keys: ['g'], where: 'In the ledger', may: 'edit' },
  { id: 'take-out', name: 'Take out of collections', keys: ['F'], where: 'In the ledger', may: 'edit' },
  { id: 'tag', name: 'Tag', keys: ['t'], where: 'In the ledger', may: 'edit' },
  { id: 'fields', name: 'Edit a field of the selection', may: 'edit' },
  { id: 'title-case', name: 'Set the case of titles', may: 'edit' },
  { id: 'reading', name: 'Next reading state', keys: ['r'], where: 'In the ledger', may: 'own' },
  { id: 'star', name: 'Star, for yourself', keys: ['s'], where: 'In the ledger', may: 'own' },
  { id: 'edit', name: 'Edit the record', keys: ['e'], where: 'In the ledger', may: 'edit' },
  { id: 'cite', name: 'Copy the citation', keys: ['c'], where: 'In the ledger', may: 'cite' },
  { id: 'cite-with', name: 'Cite with a page', keys: ['C'], where: 'In the ledger', may: 'cite' },
  { id: 'to-bin', name: 'Move to the bin', keys: ['Delete'], where: 'In the ledger', may: 'edit' },
  { id: 'leave', name: 'Close what is open', keys: ['Escape'], where: 'In the ledger', byKey: true },

  { id: 'take-in', name: 'Take in the selection', keys: ['i'], where: 'In the intake', may: 'gather' },
  {
    id: 'decide',
    name: 'Join to the source that is here, or take in',
    keys: ['Enter'],
    where: 'In the intake',
    may: 'gather',
    byKey: true,
  },
  { id: 'set-aside', name: 'Set aside', keys: ['Delete'], where: 'In the intake', may: 'gather' },
  { id: 'mend', name: 'Mend the record', keys: ['e'], where: 'In the intake', may: 'edit' },

  {
    id: 'merge',
    name: 'Merge the compared records, or apply the selected corrections',
    keys: ['Enter', 'm'],
    where: 'In Check',
    may: 'edit',
  },
  { id: 'not-same', name: 'Not the same work', keys: ['n'], where: 'In Check', may: 'edit' },
  { id: 'versions', name: 'Versions of one work', keys: ['v'], where: 'In Check', may: 'edit' },
  {
    id: 'suggestion',
    name: 'Take a suggestion',
    keys: ['1', '2', '3', '4', '5', '6', '7', '8'],
    where: 'In Check',
    does: 'file or tag a loose source as it is suggested',
    may: 'edit',
    byKey: true,
  },
  { id: 'later', name: 'Postpone, and go to the next', keys: ['l'], where: 'In Check' },
  {
    id: 'leave-out',
    name: 'Leave out the last record, or put it back',
    keys: ['o'],
    where: 'In Check',
  },
  {
    id: 'take-cell',
    name: 'Choose a value: press the letter of its record for the current row',
    keys: ['ArrowRight', 'ArrowLeft'],
    where: 'In Check',
    does: 'the value of the record beside, in the row one is at; up and down change the row',
    byKey: true,
  },
  {
    id: 'check-row',
    name: 'The row above or below',
    keys: ['ArrowDown', 'ArrowUp'],
    where: 'In Check',
    byKey: true,
  },
  {
    id: 'word',
    name: 'Choose a word',
    keys: ['ArrowRight', 'ArrowLeft', 'ArrowDown', 'ArrowUp'],
    where: 'In the reader',
    byKey: true,
  },
  {
    id: 'words',
    name: 'Choose more words',
    keys: ['Shift ArrowRight', 'Shift ArrowLeft', 'Shift ArrowDown', 'Shift ArrowUp'],
    where: 'In the reader',
    byKey: true,
  },
  { id: 'unchoose', name: 'Choose no word', keys: ['Escape'], where: 'In the reader', byKey: true },
  {
    id: 'mark',
    name: 'Mark the chosen words with a sense',
    keys: ['1', '2', '3', '4', '5', '6', '7', '8', '9'],
    where: 'In the reader',
    may: 'own',
    byKey: true,
  },
  { id: 'copy-quote', name: 'Copy the chosen words with their citation', keys: ['c'], where: 'In the reader' },
  { id: 'search-within', name: 'Search in the document', keys: ['/', 'Ctrl f'], where: 'In the reader' },
  { id: 'next-hit', name: 'Next hit', keys: ['Ctrl g'], where: 'In the reader' },
  { id: 'previous-hit', name: 'Previous hit', keys: ['Ctrl Shift g'], where: 'In the reader' },
  { id: 'go-to-page', name: 'Go to a page', keys: ['g'], where: 'In the reader' },
  { id: 'turn', name: 'Turn the page', keys: ['Shift R'], where: 'In the reader' },
  { id: 'next-page', name: 'Next page', keys: ['j'], where: 'In the reader' },
  { id: 'previous-page', name: 'Previous page', keys: ['k'], where: 'In the reader' },
  { id: 'larger', name: 'Larger', keys: ['+', '='], where: 'In the reader' },
  { id: 'smaller', name: 'Smaller', keys: ['-'], where: 'In the reader' },

  // Behind `not-same`, which has the same key in Check: the first that can be done is.
  {
    id: 'note',
    name: 'Write a note',
    keys: ['n'],
    where: 'Everywhere',
    does: 'write a note: of the source, mark, selected words or page',
    may: 'own',
  },
] as const satisfies readonly Command[];

export type CommandId = (typeof COMMANDS)[number]['id'];
const ALL: readonly Command[] = COMMANDS;

/** Does it; `false` where there is nothing to be done, so that the key goes on to the browser. */
export type Deed = (event?: KeyboardEvent) => unknown;

const deeds = shallowReactive(new Map<string, Deed>());

/** Binds what commands do, until whoever bound them is gone. @param isActive of several of a kind, whether this is the one that is used */
export function useDeeds(bound: Partial<Record<CommandId, Deed>>, isActive: () => boolean = () => true): void {
  const release = (): void => {
    for (const [id, deed] of Object.entries(bound)) if (deeds.get(id) === deed) deeds.delete(id);
  };
  watch(
    isActive,
    (active) => {
      if (!active) release();
      else for (const [id, deed] of Object.entries(bound)) deeds.set(id, deed);
    },
    { immediate: true, flush: 'sync' },
  );
  onScopeDispose(release);
}

/** The commands that can be given by name just now. */
export function available(): { command: Command; run: Deed }[] {
  const session = useSession();
  return ALL.flatMap((command) => {
    const run = deeds.get(command.id);
    return run && !command.byKey && (!command.may || session.may(command.may)) ? [{ command, run }] : [];
  });
}

/** The key as the table has it. */
function keyOf({ ctrlKey, metaKey, shiftKey, key }: KeyboardEvent): string {
  const control = ctrlKey || metaKey ? 'Ctrl ' : '';
  // Of a sign that Shift makes, the sign itself says so.
  const shift = shiftKey && (control || key.length > 1) ? 'Shift ' : '';
  return control + shift + (control ? key.toLowerCase() : key);
}

/** What a control one is at does with these keys itself; at the one of several that is shown, arrows are for what it shows. */
const OF_CONTROLS = new Set(['Enter', ' ', 'ArrowDown', 'ArrowUp', 'ArrowLeft', 'ArrowRight', 'Home', 'End']);
const CONTROLS = 'button, a, summary, [role=separator]';
const isOfControl = (key: string, at: HTMLElement): boolean => {
  const control = OF_CONTROLS.has(key) && at.closest?.(CONTROLS);
  return Boolean(control && !(key.startsWith('Arrow') && control.matches('button[aria-current=true]')));
};

/** Gives the command a key stands for, if there is one that may be given now. */
export function answerKey(event: KeyboardEvent): void {
  if (event.defaultPrevented || event.altKey) return;
  const key = keyOf(event);
  if (isTyping(event) && key !== 'Ctrl k') return;
  if (document.querySelector('[role="dialog"]')) return;
  const at = event.target as HTMLElement;
  // In a menu, letters look for its entries.
  if (at.closest?.('[role=menu]') || isOfControl(event.key, at)) return;
  const session = useSession();
  for (const { id, keys, may } of ALL) {
    const deed = keys?.includes(key) && (!may || session.may(may)) ? deeds.get(id) : undefined;
    if (!deed || deed(event) === false) continue;
    event.preventDefault();
    return;
  }
}

const SIGNS: Record<string, string> = {
  ArrowDown: '↓',
  ArrowUp: '↑',
  ArrowLeft: '←',
  ArrowRight: '→',
  Escape: 'Esc',
  '-': '−',
};

/** A key as it stands on a keyboard: “Ctrl Shift Z”, “↓”. */
export const keyInWords = (key: string): string =>
  key
    .split(' ')
    .map((part, i, all) => SIGNS[part] ?? (all.length > 1 && i === all.length - 1 ? part.toUpperCase() : part))
    .join(' ');

/** The list of keys, by where they are. */
export function keysByPlace(): { where: string; keys: { keys: string; does: string }[] }[] {
  return PLACES.map((where) => ({
    where,
    keys: ALL.filter((c) => c.where === where && c.keys).map((c) => ({
      keys: c.keys!.length > 4 ? `${c.keys![0]} – ${c.keys!.at(-1)}` : joined(c.keys!),
      does: c.does ?? c.name.charAt(0).toLowerCase() + c.name.slice(1),
    })),
  }));
}

/** “Shift ↓ ↑”, where the keys share what leads them. */
function joined(keys: readonly string[]): string {
  const words = keys.map(keyInWords);
  const [lead, last] = [
    words[0]!.slice(0, words[0]!.lastIndexOf(' ') + 1),
    (w: string) => w.slice(w.lastIndexOf(' ') + 1),
  ];
  return lead && words.every((w) => w.startsWith(lead)) ? lead + words.map(last).join(' ') : words.join(' ');
}
