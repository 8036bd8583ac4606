/** Reads what came into candidates, outside any transaction. Nothing here is seen by anyone yet. */
import pMap from 'p-map';
import type { Progress } from '../../queue/kind.ts';
import type { Services } from '../../services.ts';
import { TookTooMuch } from '../../workers/pool.ts';
import { isFile, type Input } from '../inputs.ts';
import { leftOut, type Prepared, type Preparing } from './candidate.ts';
import { prepareFile } from './file.ts';
import { prepareRecord } from './record.ts';
import { keepReading, readingsOf } from './readings.ts';
import { preparePage } from './page.ts';
import { prepareTyped } from './typed.ts';
import { Visits } from './visits.ts';

export type { CameFrom, Candidate, Prepared } from './candidate.ts';

/** While one file is being opened or its last pages are written, the next is read. */
export const FILES_AT_ONCE = 2;

export async function prepare(
  services: Services,
  workspace: { id: string; number: number },
  importId: string,
  inputs: Input[],
  progress: Progress,
): Promise<Prepared[]> {
  const read = await readingsOf(services.db, workspace.id, importId);
  const visits = new Visits(services.fetcher);
  let done = 0;
  const reading = new Map<string, Promise<unknown>>();
  return pMap(
    inputs,
    async (input, index) => {
      const before = read.get(index);
      if (before) {
        done += 1;
        return { ...before, input };
      }
      const says = (more = ''): Promise<void> => progress(done, inputs.length, `Reading ${input.name}${more}`);
      await says();
      const way: Preparing = { services, workspace, index, visits, says };
      // The same file under two names is read by one at a time: its pages are the same rows.
      const key = isFile(input) ? input.sha256 : String(index);
      const turn = Promise.resolve(reading.get(key)).then(() => prepareOne(way, input));
      reading.set(key, turn);
      const prepared = await turn;
      await keepReading(services.db, workspace.id, importId, index, prepared);
      done += 1;
      return prepared;
    },
    { concurrency: FILES_AT_ONCE },
  );
}

async function prepareOne(way: Preparing, input: Input): Promise<Prepared> {
  try {
    if (isFile(input)) return await prepareFile(way, input);
    if ('part' in input) return await prepareTyped(way, input);
    if ('page' in input) return await preparePage(way, input);
    return await prepareRecord(way, input);
  } catch (error) {
    // One that takes more than there is does not take the others with it.
    if (error instanceof TookTooMuch) return leftOut(input, 'Reading it takes too much time or memory');
    throw error;
  }
}
