/** Notes as files that any editor opens: a folder of Markdown with front matter, and JSON. */
export * from './folder.ts';
export * from './markdown.ts';
