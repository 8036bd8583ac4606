/** What property tests draw from, here and in the server. Nothing else imports it. */
export * from './pages.ts';
export * from './questions.ts';
export * from './records.ts';
export * from './changes.ts';
export * from './broken.ts';
export * from './readers.ts';
