/** What the parts of the extension say to each other. */
import type { Clip, Clipped } from '@pandecta/contract';

/** What a page seems to hold, at a glance. */
export interface Glance {
  /** The stamp of what it is: "Ar", "Nw", "We". */
  stamp: string;
  /** Titles of the works it lists, where it lists several. */
  items: string[];
}

export type Message = { say: 'glance'; glance: Glance } | { say: 'send'; clip: Clip } | { say: 'unsent' };

export type Sent = { sent: Clipped } | { kept: string } | { refused: string };

/** What could not be sent yet. */
export const UNSENT = 'unsent';
export const CONNECTION = 'connection';
