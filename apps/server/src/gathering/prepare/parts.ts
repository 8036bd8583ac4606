/** A document that refers to works: each reference in it is read, each identifier looked up, each link visited. */
import pMap from 'p-map';
import type { DoorPart } from '@pandecta/core/door';
import { seenInWords } from '@pandecta/core/door';
import { formatNumber } from '@pandecta/core/wording';
import type { FileInput, TypedInput } from '../inputs.ts';
import { message, type Prepared, type Preparing } from './candidate.ts';
import { prepareTyped } from './typed.ts';

/** Parts that are looked up at once. */
const AT_ONCE = 4;
/** More than any document refers to. */
const MOST_PARTS = 5000;

export async function prepareParts(
  way: Preparing,
  input: FileInput | TypedInput,
  { parts, otherNotes, as }: { parts: DoorPart[]; otherNotes: number; as: string },
): Promise<Prepared> {
  const taken = parts.slice(0, MOST_PARTS);
  let done = 0;
  const each = await pMap(
    taken,
    async (part) => {
      const prepared = await prepareTyped(way, { name: input.name, part });
      done += 1;
      await way.says(`: ${formatNumber(done)} of ${formatNumber(taken.length)}`);
      return prepared;
    },
    { concurrency: AT_ONCE },
  );
  const says = [
    message(input, 'taken-out', `It is ${as}`, `taken out of it: ${inWords(taken)}`, 'info'),
    ...(otherNotes
      ? [message(input, 'other-notes', `${formatNumber(otherNotes)} of its notes name no source`, 'left out', 'info')]
      : []),
    ...(parts.length > taken.length
      ? [
          message(
            input,
            'too-many',
            `It refers to ${formatNumber(parts.length)} things`,
            `the first ${formatNumber(MOST_PARTS)} were taken`,
          ),
        ]
      : []),
  ];
  return {
    input,
    format: as,
    candidates: each.flatMap((p) => p.candidates),
    messages: [...says, ...each.flatMap((p) => p.messages)],
    ...(taken.length ? {} : { trouble: 'No reference, identifier or link was found in it' }),
  };
}

const inWords = (parts: DoorPart[]): string =>
  seenInWords(parts)
    .map((s) => s.says)
    .join(', ') || 'nothing';
