/** What the parts of the extension say to each other. */
import type { Clip, Clipped } from '@pandecta/contract';

/** What a page seems to hold, at a glance. */
export interface Glance {
  /** The stamp of what it is: "Ar", "Nw", "We". */
  stamp: string;
  /** Titles of the works it lists, where it lists several. */
  items: string[];
  /** Where its full text is, by what it says of itself or the one PDF it links. */
  pdf?: string;
}

export type Message = { say: 'glance'; glance: Glance } | { say: 'send'; clip: Clip; pdf?: string } | { say: 'unsent' };

export type Sent = { sent: Clipped; without?: string } | { kept: string } | { refused: string };

/** What could not be sent yet. */
export const UNSENT = 'unsent';
export const CONNECTION = 'connection';
