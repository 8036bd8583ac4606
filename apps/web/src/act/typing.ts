/** True while keys belong to something one types in. */
export function isTyping(event: Event): boolean {
  const target = event.target as HTMLElement | null;
  if (!target) return false;
  return target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName)
    ? (target as HTMLInputElement).type !== 'checkbox'
    : false;
}
