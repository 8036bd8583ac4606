export { repairEncoding } from './encoding.ts';
export { decodeEntities, plainText, stripTags } from './markup.ts';
