export { useCheck } from './store.ts';
