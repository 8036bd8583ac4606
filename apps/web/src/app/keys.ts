/** The list of keys, shown by `?` and used by the views that answer to them. */
export interface Key {
  keys: string;
  does: string;
}

export const KEYS: { where: string; keys: Key[] }[] = [
  {
    where: 'Everywhere',
    keys: [
      { keys: '/', does: 'to the ask line; Esc leaves it' },
      { keys: 'Ctrl K', does: 'any command or source by name' },
      { keys: 'Ctrl Z', does: 'undo' },
      { keys: 'Ctrl Shift Z', does: 'do again' },
      { keys: '?', does: 'this list' },
    ],
  },
  {
    where: 'In the ledger',
    keys: [
      { keys: 'j k ↓ ↑', does: 'next and previous source' },
      { keys: 'Shift ↓ ↑', does: 'select as you go' },
      { keys: 'x', does: 'select or unselect' },
      { keys: 'Ctrl A', does: 'select all that match' },
      { keys: 'Enter', does: 'open the document' },
      { keys: 'f', does: 'file to a collection' },
      { keys: 't', does: 'tag' },
      { keys: 'r', does: 'next reading state' },
      { keys: 's', does: 'star, for yourself' },
      { keys: 'e', does: 'edit the record' },
      { keys: 'c', does: 'copy the citation' },
      { keys: 'Delete', does: 'to the bin' },
      { keys: 'Esc', does: 'unselect; again: take the words away' },
    ],
  },
  {
    where: 'In the reader',
    keys: [
      { keys: '→ ←', does: 'choose a word; ↓ ↑ by lines' },
      { keys: 'Shift → ←', does: 'choose more words' },
      { keys: '1 – 9', does: 'mark the chosen words with a sense' },
      { keys: '/', does: 'search in the document' },
      { keys: 'n  p', does: 'next and previous hit' },
      { keys: '+ −', does: 'zoom' },
      { keys: 'Ctrl Enter', does: 'keep the gloss' },
    ],
  },
];

/** True while keys belong to something one types in. */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null;
  if (!target) return false;
  return target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName)
    ? (target as HTMLInputElement).type !== 'checkbox'
    : false;
}
