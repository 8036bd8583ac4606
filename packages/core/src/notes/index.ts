/** Notes: their text, the quotations in it and whether they stand where they say, parting and joining, dates of events. */
export * from './checking.ts';
export * from './document.ts';
export * from './event.ts';
export * from './split.ts';
