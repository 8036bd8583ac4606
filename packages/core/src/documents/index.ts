/** Documents: pages of text with the place of each word, and what a document says of the work it holds. */
export * from './page.ts';
export * from './bbox.ts';
export * from './recognise.ts';
export * from './xmp.ts';
export * from './lines.ts';
export * from './paragraphs.ts';
export * from './confidence.ts';
export * from './skew.ts';
export * from './proposals.ts';
export * from './hocr.ts';
