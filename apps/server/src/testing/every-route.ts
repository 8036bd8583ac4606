/** All routes within a workspace, from their declarations, and how each is asked about what stands there. */
import { routes, type Route } from '@pandecta/contract';

/** The ids a test asks about, by the name of the parameter they stand for in a path; see `makeLibrary`. */
export type Ids = Record<string, string>;

const ALL = Object.entries(routes).flatMap(([capability, of]) =>
  Object.entries(of as Record<string, Route>).map(([name, route]) => ({ name: `${capability}.${name}`, route })),
);
export const WITHIN = ALL.filter(
  ({ route }) => route.path.startsWith('/w/:workspace') && route.produces !== 'text/event-stream',
);

export const pathIn = (workspace: string, { path }: Route, of: Record<string, string>): string =>
  path.replace(/:(\w+)/g, (_, name: string) => (name === 'workspace' ? workspace : of[name]!));

export const queryFor = ({ query }: Route): string =>
  ({
    WithinQuery: '?q=gate',
    PageAsked: '?page=1',
    PagesAsked: '?from=1&count=1',
    AskIds: '?from=0&count=10',
    SuggestValues: '?field=tag',
    AskOverview: '?rows=tag&columns=kind',
  })[query?.name ?? ''] ?? '';

/** Bodies and queries that speak of what is in the workspace, for routes that need them to be understood. */
export const bodiesFor = (ids: Ids): Record<string, object> => ({
  'sources.edit': { fields: { note: 'Mine now' } },
  'sources.add': {
    record: { type: 'book', title: 'x' },
    destination: { collections: [ids.collection], tags: [], reading: null },
  },
  'files.setLanguages': { languages: ['eng'] },
  'files.takePages': { pages: [1], record: { type: 'letter', title: 'x' } },
  'sources.presence': { ids: [ids.source], to: 'bin' },
  'sources.emptyBin': { seen: 0 },
  'sources.binDays': { days: 30 },
  'sources.summary': { ids: [ids.source] },
  'altering.preview': { ids: [ids.source], field: 'note', way: 'set', value: 'Mine now' },
  'altering.alter': { ids: [ids.source], field: 'note', way: 'set', value: 'Mine now' },
  'own.reading': { ids: [ids.source], state: 'read' },
  'own.star': { ids: [ids.source], present: true },
  'search.among': { ids: [ids.source] },
  'search.places': { ids: [ids.source] },
  'saved.keep': { name: 'Mine', ask: { q: 'gate' } },
  'saved.edit': { name: 'Mine now' },
  'saved.many': { ids: [ids.saved], to: 'remove' },
  'saved.log': { logs: true },
  'saved.note': { ask: { q: 'gate' }, words: 'gate', found: 1 },
  'saved.watch': { watched: true },
  'saved.makeFolder': { name: 'Mine' },
  'saved.editFolder': { name: 'Mine now' },
  'assessments.makeLabel': { name: 'Mine', letter: 'M', tint: 'moss' },
  'assessments.editLabel': { name: 'Mine now', letter: 'M', tint: 'moss' },
  'assessments.label': { ids: [ids.source], label: ids.label, present: true },
  'assessments.recheck': { ids: [ids.source], reason: 'mine' },
  'assessments.rate': { ids: [ids.source], rating: 3 },
  'places.make': { name: 'Under theirs', parent: ids.collection },
  'places.edit': { name: 'Mine now' },
  'places.merge': { others: [ids.collection] },
  'places.byName': {},
  'places.place': { collection: ids.collection, parent: null },
  'places.file': { ids: [ids.source], collections: [ids.collection], present: true },
  'tags.edit': { name: 'Mine now' },
  'tags.bringVocabulary': { text: 'name\nmine' },
  'tags.toTags': { terms: [ids.tag], keep: true },
  'tags.merge': { into: ids.tag, terms: [ids.tag] },
  'tags.tag': { ids: [ids.source], name: 'mine', present: true },
  'marks.make': { page: 1, sense: ids.sense, quote: { exact: 'x', prefix: '', suffix: '' }, rects: [] },
  'marks.edit': { gloss: 'Mine now' },
  'marks.list': {},
  'marks.export': { format: 'markdown', style: 'apa' },
  'senses.make': { name: 'Mine', key: 9, colour: 'sky' },
  'senses.edit': { name: 'Mine', key: 1, colour: 'sky' },
  'senses.merge': { into: ids.sense },
  'senses.order': { senses: [ids.sense] },
  'files.correct': { page: 1, line: 0, text: 'Mine', seen: 'Hours of the lower gate' },
  'files.number': { page: 1, number: '12' },
  'glosses.write': { text: 'Mine now' },
  'glosses.edit': { text: 'Mine now' },
  'gather.typed': { text: 'x 10.5555/y', destination: { collections: [ids.collection], tags: [], reading: null } },
  'gather.set': { passComplete: true, holdReferences: true },
  'gather.begin': { uploads: [ids.source] },
  'gather.clip': { address: 'https://a.example/', html: '<p>x</p>' },
  'gather.makeKey': { name: 'mine' },
  'outside.search': { question: { words: 'gate' }, catalogues: [ids.catalogue] },
  'outside.gather': { works: ['0'] },
  'outside.describe': { why: 'Mine now' },
  'outside.addWatch': { name: 'Mine', question: { words: 'gate' }, catalogues: [ids.catalogue], every: 'week' },
  'outside.pauseWatch': { paused: true },
  'intake.takeIn': { ids: [ids.source] },
  'intake.lookUpMany': { ids: [ids.source] },
  'intake.setAside': { ids: [ids.source], aside: true },
  'intake.respan': { start: 0, end: 1, field: 'title' },
  'intake.joinCertain': { ids: [ids.source] },
  'intake.join': { to: ids.source },
  'check.merge': { into: ids.source, sources: [ids.source] },
  'check.mergeMany': { groups: [] },
  'files.link': { address: 'https://a.example/x' },
  'files.edit': { name: 'Mine now.pdf' },
  'relations.cites': { cited: [ids.source] },
  'relations.say': { from: ids.source, to: ids.source, as: 'cites', present: true },
  'check.relate': { sources: [ids.source, ids.source], as: 'other than', present: true },
  'check.consolidation': { collection: ids.collection, ids: [ids.source] },
  'check.bring': { collection: ids.collection, ids: [ids.source], merge: [] },
  'check.settle': { what: 'aside', name: 'year', sources: [ids.source], present: true },
  'check.cases': { ids: [ids.source], to: 'sentence' },
  'check.mend': { rule: 'year', mends: [] },
  'cite.record': { record: { type: 'book', title: 'One' }, style: 'apa' },
  'cite.cite': { ids: [ids.source], style: 'chicago-author-date' },
  'cite.export': { ids: [ids.source], format: 'ris' },
});
