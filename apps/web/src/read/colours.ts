/** Mark colours as theme tokens; the words on a mark stay dark in both themes. */
import type { Sense } from '@pandecta/core/marks';

export const FILL: Record<Sense['colour'], string> = {
  straw: 'bg-straw',
  mist: 'bg-mist',
  lilac: 'bg-lilac',
  rose: 'bg-rose',
  sky: 'bg-sky',
  sand: 'bg-sand',
};
