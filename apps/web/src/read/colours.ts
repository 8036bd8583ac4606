/** Mark colours as theme tokens; the words on a mark stay dark in both themes. */
import type { Sense } from '@pandecta/core/marks';

/** Of lines and frames, dark enough on white. */
export const LINE: Record<Sense['colour'], string> = {
  straw: 'border-[#a17b00]',
  mist: 'border-[#17756a]',
  lilac: 'border-[#7356a8]',
  rose: 'border-[#b03a36]',
  sky: 'border-[#2a6ba3]',
  sand: 'border-[#86673a]',
};

export const FILL: Record<Sense['colour'], string> = {
  straw: 'bg-straw',
  mist: 'bg-mist',
  lilac: 'bg-lilac',
  rose: 'bg-rose',
  sky: 'bg-sky',
  sand: 'bg-sand',
};
