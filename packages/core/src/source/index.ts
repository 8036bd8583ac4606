export * from './kinds.ts';
export * from './variables.ts';
export * from './names.ts';
export * from './bodies.ts';
export * from './dates.ts';
export * from './markup.ts';
export * from './record.ts';
export * from './limits.ts';
export * from './making.ts';
export * from './line.ts';
export * from './part.ts';
export {
  AUTHOR_FORMS,
  LOCATOR_KINDS,
  LOCATORS,
  type AuthorForm,
  type CiteItem,
  type LocatorKind,
} from './cite-item.ts';
