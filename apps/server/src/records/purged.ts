import { Registry } from '../registry.ts';

/**
 * The tables whose rows go with a source, where no foreign key says so: checking one for each of a million rows makes an import
 * slower. Each capability names its own; a test holds them against the tables there are.
 */
export const PURGED = new Registry<string[]>('what goes with a source');
