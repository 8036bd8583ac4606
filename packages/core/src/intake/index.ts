export * from './lacks.ts';
