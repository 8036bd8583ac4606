/** One field of many records altered in one way. Holds an engine for regular expressions: the page does not take it. */
export { alterer, NotAnAlteration, type Alteration, type Way } from './alter.ts';
