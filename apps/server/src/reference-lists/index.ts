/** What a document lists as its references, and which of them are here. */
import type { Capability } from '../capability.ts';
import { referenceListRoutes } from './routes.ts';

export const referenceLists = { routes: referenceListRoutes } satisfies Capability;
