/** What the stand-in registry of DOIs knows: the demo's articles, and one no one has gathered yet. */
import { toCslItem } from '@pandecta/core/formats';
import { SOURCES } from './sources.ts';
import { WIDER } from './wider.ts';

export const REGISTERED = new Map<string, Record<string, unknown>>(
  [...SOURCES, ...WIDER].flatMap((s) =>
    s.record.DOI ? [[s.record.DOI.toLowerCase(), toCslItem(s, s.record.DOI)] as const] : [],
  ),
);

REGISTERED.set('10.5555/withy.2026.0001', {
  id: '10.5555/withy.2026.0001',
  type: 'article-journal',
  title: 'Reopening Withy Sluice: first results',
  DOI: '10.5555/withy.2026.0001',
  author: [
    { given: 'Leila', family: 'Samphire' },
    { given: 'Caspar', family: 'Wold' },
  ],
  'container-title': 'Estuary and Marsh',
  volume: '56',
  issue: '1',
  page: '1-14',
  issued: { 'date-parts': [[2026, 2]] },
});
