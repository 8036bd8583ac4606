/** Headings: the people, bodies, places, events and themes that notes and sources are about, each with its other names. */
export * from './heading.ts';
export * from './names.ts';
