/**
 * Whether text stands written that nobody sent: before a reload or the end of the page the browser asks then whether it may go. For
 * every form there is and every field of lines, so that none has to think of it.
 */
import { useEventListener } from '@vueuse/core';

type Written = HTMLTextAreaElement | HTMLInputElement;

/** A line by itself is a filter or a question, but where `data-work` says that it is saved when one leaves it. */
const isWork = (at: EventTarget | null): at is Written =>
  at instanceof HTMLTextAreaElement ||
  (at instanceof HTMLInputElement && ['text', 'url'].includes(at.type) && (!!at.form || 'work' in at.dataset));

export function useAskBeforeLeaving(): void {
  const entered = new WeakMap<Written, string>();
  /** With what stood there before. */
  const written = new Map<Written, string>();
  const sent = new WeakSet<Written>();
  useEventListener(document, 'focusin', ({ target }) => {
    if (isWork(target)) entered.set(target, target.value);
  });
  useEventListener(document, 'input', ({ target }) => {
    if (!isWork(target)) return;
    for (const field of written.keys()) if (!field.isConnected) written.delete(field);
    if (!written.has(target)) written.set(target, entered.get(target) ?? '');
    sent.delete(target);
  });
  // By itself it is saved when one leaves it, and kept where that fails (`unsent`); a form, when it is sent.
  useEventListener(document, 'change', ({ target }) => {
    if (isWork(target) && !target.form) written.delete(target);
  });
  useEventListener(document, 'submit', ({ target }) => {
    for (const field of written.keys()) if (field.form === target) sent.add(field);
  });
  useEventListener(window, 'beforeunload', (event) => {
    const refused = document.querySelector('[role="alert"]') !== null;
    for (const [field, before] of written)
      if (field.isConnected && field.value.trim() && field.value !== before && (refused || !sent.has(field)))
        event.preventDefault();
  });
}
