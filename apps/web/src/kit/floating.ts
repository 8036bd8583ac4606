/** Places what floats beside the control it belongs to, in the window, so that no pane cuts it off. */
import { ref, type CSSProperties } from 'vue';

export function useFloating(width: number) {
  const style = ref<CSSProperties>({});

  /** Puts it above or below the control, wherever there is more room. Called when the control is used. */
  function place(event: Event | HTMLElement): void {
    const el = event instanceof Event ? (event.currentTarget as HTMLElement) : event;
    const box = el.getBoundingClientRect();
    const above = box.top > innerHeight - box.bottom;
    const room = (above ? box.top : innerHeight - box.bottom) - 16;
    style.value = {
      position: 'fixed',
      left: `${Math.max(8, Math.min(box.left, innerWidth - width - 8))}px`,
      width: `${width}px`,
      maxHeight: `${Math.min(420, room)}px`,
      ...(above ? { bottom: `${innerHeight - box.top + 4}px` } : { top: `${box.bottom + 4}px` }),
    };
  }

  return { style, place };
}
