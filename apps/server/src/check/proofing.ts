/** Records become right: what is found in them, what is mended, what is set aside. */
import type {
  Case,
  CasesOf,
  Changed,
  FindingOf,
  Findings,
  FindingsAsked,
  MendMany,
  OneAsked,
  RuleCount,
  Settle,
} from '@pandecta/contract';
import { countSources, type Change } from '@pandecta/core/changes';
import { RULES, type Finding } from '@pandecta/core/proofing';
import { whoOf, type SourceRecord } from '@pandecta/core/source';
import { Styles } from '@pandecta/debian/styles';
import { counted } from '@pandecta/core/wording';
import { answer } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import { Refusal } from '../errors.ts';
import type { Acting, Actor } from '../access/principal.ts';
import { chosenIds } from '../searching/chosen.ts';
import type { Services } from '../services.ts';
import { findRecords } from '../records/store.ts';
import { refuseWrong } from '../records/refuse-wrong.ts';
import { Kept } from './kept.ts';
import { withAllRecords } from '../records/stream.ts';
import {
  besideOf,
  findBeside,
  findIn,
  findRecord,
  findSettled,
  revisionOf,
  toldOf,
  type SettledHere,
} from './store.ts';

interface ProofOf extends Omit<Finding, 'severity'> {
  source: string;
}

/** What was found stands until something is written. */
const findingsKept = new Kept<{ looked: string[]; all: ProofOf[] }>();

const now = (): { today: string; thisYear: number } => ({
  today: new Date().toISOString().slice(0, 10),
  thisYear: new Date().getFullYear(),
});

async function refuseUnknownStyle({ config }: Services, id: string): Promise<void> {
  if (!(await new Styles(config.stylesFolder).get(id))) throw new Refusal('no_such_style', id);
}

/** All that is found in a workspace, set aside or not. */
async function allFound(services: Services, workspaceId: string, style: string, settled: SettledHere) {
  const { db, workers, config } = services;
  await refuseUnknownStyle(services, style);
  const keep = settled.words;
  // Files come and are read, versions are said, days pass: none of it is a write of a record.
  const of = `${await revisionOf(db, workspaceId)} ${await besideOf(db, workspaceId)} ${now().today} ${style} ${keep.join('\u0000')}`;
  return findingsKept.of(workspaceId, of, async () => {
    const beside = await findBeside(db, workspaceId);
    const { ids, found } = await withAllRecords(db, workspaceId, {
      presences: ['live'],
      run: (port, stop) =>
        workers.run('proofAll', { port, style, folder: config.stylesFolder, keep, ...now() }, [port], stop),
      end: (all) => new Map(all.flatMap((id, at) => (beside.has(id) ? [[at, beside.get(id)!] as const] : []))),
    });
    const all = found.map(({ at, severity: _, ...f }) => ({ source: ids[at]!, ...f }));
    return { looked: ids, all };
  });
}

/** What is found in a workspace, or in a collection of it. */
export async function findings(services: Services, actor: Actor, asked: FindingsAsked): Promise<Findings> {
  const { db } = services;
  const { workspaceId } = actor;
  const settled = await findSettled(db, workspaceId);
  const { looked, all } = await allFound(services, workspaceId, asked.style, settled);
  const inside = asked.collection ? await findIn(db, actor, asked.collection) : undefined;
  const here = inside ? all.filter((f) => inside.has(f.source)) : all;
  // Of a report all rules are told, else the one that is looked at.
  const wanted = here.filter(
    (f) => (!asked.rule || f.rule === asked.rule) && settled.isAside(f) === (asked.only === 'aside'),
  );
  return {
    rules: countedBy(here, settled).filter((r) => r.count || r.aside || r.whole),
    looked: inside ? looked.filter((id) => inside.has(id)).length : looked.length,
    words: settled.words,
    findings: await told(services, workspaceId, wanted.slice(0, asked.rule ? MOST_SHOWN : MOST_REPORTED)),
  };
}

/** All rules, with how much each finds open and set aside. */
function countedBy(found: ProofOf[], settled: SettledHere): RuleCount[] {
  const counts = new Map(RULES.map((r) => [r.id, { count: 0, aside: 0 }]));
  for (const f of found) counts.get(f.rule)![settled.isAside(f) ? 'aside' : 'count'] += 1;
  return RULES.map(({ id, title, why, severity }) => ({
    id,
    title,
    why,
    severity,
    ...counts.get(id)!,
    whole: settled.rules.has(id),
  }));
}

const MOST_SHOWN = 300;
const MOST_REPORTED = 2000;

/** Findings with the records they are of: where one is gone, so is what was found in it. */
async function told({ db }: Services, workspaceId: string, found: ProofOf[]): Promise<FindingOf[]> {
  const records = await findRecords(db, workspaceId, [...new Set(found.map((f) => f.source))]);
  return found.flatMap((f) => {
    const record = records.get(f.source);
    return record ? withRecord(f, record) : [];
  });
}

function withRecord({ mend = undefined, ...f }: ProofOf, record: SourceRecord): FindingOf {
  const before = mend ? Object.fromEntries(Object.keys(mend).map((k) => [k, valueOf(record, k)])) : null;
  const { title, who } = toldOf(f.source, record);
  return { ...f, mend: mend ?? null, title, who, before } as FindingOf;
}

const valueOf = (record: SourceRecord, field: string): unknown => (record as Record<string, unknown>)[field] ?? null;

/** What is found in one source, live or waiting, looked at by itself: what needs the others is told in Check. */
export async function findingsIn(
  services: Services,
  workspaceId: string,
  source: string,
  { style }: OneAsked,
): Promise<Pick<Findings, 'rules' | 'findings'>> {
  const { db, workers, config } = services;
  await refuseUnknownStyle(services, style);
  const record = await findRecord(db, workspaceId, source);
  if (!record) throw new Refusal('no_such_source');
  const settled = await findSettled(db, workspaceId);
  const beside = (await findBeside(db, workspaceId, source)).get(source);
  const found = await workers.run('proofOne', { record, beside, style, folder: config.stylesFolder, keep: settled.words, ...now() }); // prettier-ignore
  const open = found.map(({ severity: _, ...f }) => ({ source, ...f })).filter((f) => !settled.isAside(f));
  const rules = countedBy(open, settled).filter((r) => r.count);
  return { rules, findings: open.map((f) => withRecord(f, record)) };
}

/** What is mended without a rule having found it. */
const DEEDS: Partial<Record<string, string>> = {
  'case: sentence': 'Sentence case',
  'case: title': 'Title case',
  'case: as typed': 'Titles as they are typed',
};

/** @throws Refusal where a field cannot hold its value, or was changed since */
export async function mend(services: Services, actor: Actor, { rule, mends }: MendMany): Promise<Changed> {
  const title = RULES.find((r) => r.id === rule)?.title ?? DEEDS[rule] ?? 'Proofing';
  const changes = mends.map(({ source, before, after }): Change => {
    refuseWrong(before);
    refuseWrong(after);
    const fields = Object.fromEntries(
      Object.entries(after).map(([f, v]) => [f, { before: (before[f] ?? null) as never, after: v as never }]),
    );
    return { do: 'edit', source, fields };
  });
  const n = changes.length;
  const says = `${title}: mended ${counted(n, 'record')}`;
  return answer(await commit(services, actor, { do: 'all', says, changes }));
}

/** A rule, or what it finds in some sources, is set aside; a word is kept; or it is taken back. */
export async function settle(
  services: Services,
  actor: Actor,
  { what, name, sources = [], present }: Settle,
): Promise<Changed> {
  const rule = RULES.find((r) => r.id === name);
  if (what === 'aside' && !rule) throw new Refusal('invalid', `no rule is called “${name}”`);
  const of = sources.length ? sources : [null];
  const changes = of.map((source): Change => ({ do: 'settle', what, name: name.trim(), source, present }));
  const where = sources.length ? ` in ${countSources(sources.length)}` : ' everywhere';
  const says =
    what === 'word'
      ? `“${name.trim()}” ${present ? 'keeps' : 'no longer keeps'} its form in any case`
      : `${present ? 'Set aside' : 'Took up again'}: ${rule!.title}${where}`;
  return answer(await commit(services, actor, { do: 'all', says, changes }));
}

/** More titles are not shown before they are changed. */
const MOST_TITLES = 2000;

/** The titles of chosen sources in another case, before anything is changed. */
export async function cases(services: Services, caller: Acting, { to, ...chosen }: Case): Promise<CasesOf> {
  const { db, workers } = services;
  const workspaceId = caller.workspace.id;
  const ids = await chosenIds(services, caller, chosen, MOST_TITLES);
  const [records, settled] = await Promise.all([findRecords(db, workspaceId, ids), findSettled(db, workspaceId)]);
  const of = ids.flatMap((id) => {
    const title = records.get(id)?.title;
    return title ? [{ id, title }] : [];
  });
  const titles = of.map((o) => ({ title: o.title, language: records.get(o.id)?.language }));
  const { found: after } = await withAllRecords(db, workspaceId, {
    presences: ['live'],
    run: (port, stop) => workers.run('casesOf', { port, titles, to, keep: settled.words }, [port], stop),
  });
  const all = of.map(({ id, title }, i) => ({
    source: id,
    before: title,
    after: after[i]!,
    who: whoOf(records.get(id)!),
  }));
  const changed = all.filter((a) => a.after !== a.before);
  return { titles: changed, same: all.length - changed.length, words: settled.words };
}
