/**
 * All tables, each declared with its capability. The workspace leads every key; ids are UUIDv7. What a person edits
 * stands in `sources` and its companions; what searching, narrowing and sorting need stands in narrow tables derived from
 * them (`../indexing`), so that a change of tag rewrites no text index and a text index never slows a list.
 */
export * from '../access/tables.ts';
export * from '../sources/tables.ts';
export * from '../tags/tables.ts';
export * from '../places/tables.ts';
export * from '../files/tables.ts';
export * from '../marks/tables.ts';
export * from '../own/tables.ts';
export * from '../check/tables.ts';
export * from '../relations/tables.ts';
export * from '../lists/tables.ts';
export * from '../saved/tables.ts';
export * from '../stating/tables.ts';
export * from '../changes/tables.ts';
export * from '../jobs/tables.ts';
export * from '../gathering/tables.ts';
export * from '../outside/tables.ts';
export * from '../indexing/tables.ts';
