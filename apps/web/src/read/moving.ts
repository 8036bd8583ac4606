/** Going to a page, to a place on it, and from hit to hit. */
import { useDebounceFn } from '@vueuse/core';
import { nextTick } from 'vue';
import type { PageHit } from '@pandecta/contract';
import type { Rect } from '@pandecta/core/marks';

interface Within {
  at: number;
  current: PageHit | undefined;
  search(): Promise<void>;
  step(by: number): void;
}

export function useMoving(
  within: Within,
  pages: {
    /** @param y in pixels from the top of the page */
    go(page: number, y: number): void;
    /** In pixels, of a place on a page as it is shown. */
    topOf(page: number, rect: Rect): number;
  },
) {
  function go(page: number, y = 0): void {
    void nextTick(() => pages.go(page, y));
  }
  const toPlace = (page: number, rect: Rect | undefined): void => go(page, rect ? pages.topOf(page, rect) : 0);
  const toCurrent = (): void => void (within.current && toPlace(within.current.page, within.current.rects[0]));
  const searchNow = useDebounceFn(async () => {
    await within.search();
    toCurrent();
  }, 120);
  function step(by: number): void {
    within.step(by);
    toCurrent();
  }
  function toHit(at: number): void {
    within.at = at;
    toCurrent();
  }
  return { go, toPlace, searchNow, step, toHit };
}
