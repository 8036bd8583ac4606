/** A gathering begins: what came is noted, and a job is to read it. */
import { v7 as uuidv7 } from 'uuid';
import type { Destination, Started, Through, Way } from '@pandecta/contract';
import type { Db } from '../database/connect.ts';
import { within } from '../database/within.ts';
import type { Actor } from '../access/principal.ts';
import type { Services } from '../services.ts';
import type { Input } from './inputs.ts';
import { importJob } from './jobs.ts';
import { imports } from './tables.ts';

export interface Setting {
  destination?: Destination;
  through?: Through;
  way?: Way;
  /** What it is called; by its files where it is not said. */
  title?: string;
  /** Done in the transaction that begins it. */
  also?: (tx: Db) => Promise<unknown>;
}

export async function startImport(
  { jobs }: Services,
  actor: Actor,
  inputs: Input[],
  { destination, through, way = 'files', title = titleOf(inputs), also }: Setting = {},
): Promise<Started> {
  const importId = uuidv7();
  const jobId = await jobs.queue(importJob, actor, title, null, async (tx, job) => {
    const row = { id: importId, jobId: job, title, inputs, madeBy: actor.userId, way };
    await within(tx, actor.workspaceId).insert(imports, {
      ...row,
      ...(destination && { destination }),
      ...(through && { through }),
    });
    await also?.(tx);
  });
  return { jobId, importId };
}

const titleOf = (inputs: Input[]): string =>
  inputs.length === 1 ? inputs[0]!.name : `${inputs[0]!.name} and ${inputs.length - 1} more`;
