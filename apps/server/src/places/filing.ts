/** Filing sources in collections, taking them from there, moving them from one to others. */
import { countSources, sourcesOf, type Change } from '@pandecta/core/changes';
import type { Changed, FileSources } from '@pandecta/contract';
import { answer } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import type { Actor } from '../access/principal.ts';
import type { Services } from '../services.ts';
import { filed } from './placed.ts';
import { findCollection, otherPlaces } from './store.ts';

export async function fileSources(
  services: Services,
  actor: Actor,
  sources: string[],
  { collections, present, from }: Pick<FileSources, 'collections' | 'present' | 'from'>,
): Promise<Changed> {
  const { db } = services;
  const into = [];
  for (const id of new Set(collections)) into.push(await findCollection(db, actor, id));
  const out = present && from ? await findCollection(db, actor, from) : undefined;
  const changes: Change[] = into.map((c) => filed(c, sources, present));
  // What is moved to where it stands already stays there.
  if (out && !into.some((c) => c.id === out.id)) changes.push(filed(out, sources, false));
  const names = into.map((c) => c.name).join(', ');
  const committed = await commit(
    services,
    actor,
    changes.length === 1
      ? changes[0]!
      : { do: 'all', says: sentence(sources.length, names, out?.name, present), changes },
  );
  const answered = answer(committed);
  if (committed.jobId) return answered;
  if (!committed.changeId)
    return {
      ...answered,
      says: present ? `Already in ${names}` : `Not in ${names} itself; it may stand in a collection below`,
    };
  const altered = new Set(sourcesOf(committed.change)).size;
  // What is in already is not added twice, and the line says so.
  const already = present ? sources.length - altered : 0;
  if (already) return { ...answered, says: `${committed.says}; ${already} already there` };
  if (present || into.length > 1) return answered;
  const others = await otherPlaces(db, actor, sourcesOf(committed.change), into[0]!.id);
  return { ...answered, says: `${committed.says}; ${stays(others)}` };
}

function sentence(count: number, into: string, out: string | undefined, present: boolean): string {
  const n = countSources(count);
  if (out) return `Moved ${n} from ${out} to ${into}`;
  return present ? `Filed ${n} in ${into}` : `Removed ${n} from ${into}`;
}

/** What stays after sources were taken from a collection. */
function stays(others: number[]): string {
  const [n] = others;
  if (others.length === 1)
    return n ? `still in ${n} other ${n === 1 ? 'place' : 'places'}` : 'the source stays, in no collection';
  const loose = others.filter((o) => o === 0).length;
  return loose ? `the sources stay, ${loose} of them in no collection` : 'the sources stay in their other places';
}
