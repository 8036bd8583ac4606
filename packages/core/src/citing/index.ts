export * from './citer.ts';
export * from './styles.ts';
export * from './text.ts';
