/** What a mark looks like on its page. */

/** `region` is a rectangle drawn on the page, `point` a place on it; the others stand on words. */
export const SHAPES = ['highlight', 'underline', 'strike', 'region', 'point'] as const;
export type Shape = (typeof SHAPES)[number];

export const SHAPE_NAMES: Record<Shape, string> = {
  highlight: 'Highlight',
  underline: 'Underline',
  strike: 'Strike-through',
  region: 'Region',
  point: 'Point',
};

/** Whether it stands on words, which it quotes. */
export const isOnWords = (shape: Shape): boolean => shape !== 'region' && shape !== 'point';
