import { commitWithin } from '../changes/commit.ts';
import type { Job, Progress } from '../queue/kind.ts';
import { defineJob } from '../capability.ts';
import { doOnce } from '../queue/once.ts';
import { workspaceOf } from '../records/workspace.ts';
import type { Services } from '../services.ts';
import { attached, type Came } from './of-source.ts';
import { asSentences, readOrRecognise } from './scans/read.ts';

/** Reads a PDF that came for a source, and adds it there. What it did is noted in the same transaction. */
async function addFileWork(
  services: Services,
  { workspaceId, jobId, userId, input: came }: Job<Came>,
  progress: Progress,
): Promise<string> {
  const { db, storage, followers } = services;
  const { read, recognised } = await readOrRecognise(
    services,
    await workspaceOf(db, workspaceId),
    { ...came, path: storage.path(came.sha256) },
    asSentences(progress),
    came.source,
  );
  const { says } = await doOnce(db, { workspaceId, jobId }, async (tx) => {
    const actor = { workspaceId, userId };
    const committed = await commitWithin(
      tx,
      actor,
      await attached(tx, services, actor, came, recognised ? [recognised.fileId, read.fileId] : [read.fileId]),
    );
    const told = committed.changeId ? committed.says : `${came.name} is there already`;
    const more = recognised
      ? '; its text was recognised, and the scan is kept beside it'
      : read.state === 'damaged'
        ? '; it is damaged'
        : '';
    const sentence = told + more;
    return { changeId: committed.changeId, says: sentence };
  });
  followers.kick();
  return says;
}

export const addFileJob = defineJob<Came>({
  kind: 'add-file',
  nothing: 'the file was not added',
  failed: 'The file could not be read; it was not added. Add it again to try once more.',
  work: addFileWork,
});
