/** A part of what was typed: an identifier is looked up, a reference is read, a link is visited. */
import type { DoorPart } from '@pandecta/core/door';
import type { Kind, SourceRecord } from '@pandecta/core/source';
import type { TypedInput } from '../inputs.ts';
import {
  candidate,
  knownBy,
  layRegistryOver,
  message,
  type CameFrom,
  type Prepared,
  type Preparing,
} from './candidate.ts';
import { readRecords } from './file.ts';
import { prepareLink } from './page.ts';
import { lookUp } from '../../catalogues/look-up.ts';
import { lookUpDoi, type LookedUp } from '../../catalogues/registry.ts';

export async function prepareTyped(way: Preparing, input: TypedInput): Promise<Prepared> {
  const { part } = input;
  switch (part.kind) {
    case 'records':
      return readRecords(way, input, Buffer.from(part.text));
    case 'reference':
      return prepareReference(way, input);
    case 'link':
      return prepareLink(way, input);
    case 'text':
      return leftForYou(way, input, 'It could not be read as a reference');
    default:
      return part.wrong
        ? leftForYou(way, input, sentence(`${NAMES[part.kind] ?? ''} ${part.wrong}`.trim()))
        : prepareIdentifier(way, input);
  }
}

/** How the parts that have a check digit are called. */
const NAMES: Partial<Record<DoorPart['kind'], string>> = { isbn: 'ISBN,', issn: 'ISSN,' };

const sentence = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** What cannot be read waits in the intake as it came: a person makes of it what it is. */
function leftForYou({ index }: Preparing, input: TypedInput, why: string): Prepared {
  const title = input.part.text.replace(/\s+/g, ' ').trim();
  const record: SourceRecord = { type: 'document', title };
  const one = candidate(index, record, knownBy(record, 'printed reference', 0.1), {
    origin: { came: input.part.text, spans: [], trouble: why },
  });
  return {
    input,
    format: 'text',
    candidates: [one],
    messages: [message(input, 'left-for-you', why, 'kept as it came')],
  };
}

async function prepareReference({ services, index }: Preparing, input: TypedInput): Promise<Prepared> {
  const came = input.part.text;
  const { record, spans, sure } = await services.workers.run('readReference', came);
  const provenance = knownBy(record, 'printed reference', sure);
  let looked: LookedUp | undefined;
  if (record.DOI) {
    looked = await lookUpDoi(services, record.DOI);
    layRegistryOver(record, provenance, looked.record);
  }
  const origin = { came, spans, ...(looked && { lookedUp: looked.state, ...(looked.why && { trouble: looked.why }) }) };
  return {
    input,
    format: 'a reference',
    messages: [],
    candidates: [candidate(index, record, provenance, { origin })],
  };
}

/** Which variable of a record an identifier is, and of which kind what it names is, as far as it tells. */
const IDENTIFIES: Partial<
  Record<DoorPart['kind'], { field?: 'DOI' | 'ISBN' | 'PMID' | 'PMCID' | 'ISSN' | 'number'; type: Kind }>
> = {
  doi: { field: 'DOI', type: 'document' },
  isbn: { field: 'ISBN', type: 'book' },
  pmid: { field: 'PMID', type: 'article-journal' },
  pmcid: { field: 'PMCID', type: 'article-journal' },
  issn: { field: 'ISSN', type: 'article-journal' },
  arxiv: { field: 'number', type: 'article' },
  citation: { type: 'legal_case' },
};

/** Looked up where there is someone to ask; what is not found, or had no answer, waits with its identifier. */
async function prepareIdentifier({ services, workspace, index }: Preparing, input: TypedInput): Promise<Prepared> {
  const { kind, value = '', says: more } = input.part;
  const { field, type } = IDENTIFIES[kind]!;
  const bare: SourceRecord = {
    type,
    ...(field && { [field]: value }),
    ...more,
    ...(kind === 'arxiv' && { archive: 'arXiv' }),
  };
  const looked = await lookUp(services, workspace.id, bare);
  const record = looked.record ?? bare;
  const origin: CameFrom = {
    came: input.part.text,
    spans: [],
    lookedUp: looked.state,
    ...(looked.why && { trouble: looked.why }),
    ...(looked.found && { found: looked.found }),
  };
  const from = kind === 'doi' ? 'identifier registry' : 'catalogue';
  const provenance = looked.record ? knownBy(record, from, 0.97) : knownBy(record, 'person', 0.6);
  const told = {
    found: [],
    'not found': [message(input, 'not-found', `${input.name} was not found`, 'kept with its identifier alone')],
    silent: [
      message(
        input,
        'service-silent',
        `No answer for ${input.name}${looked.why ? `: ${looked.why}` : ''}`,
        'kept with its identifier; it can be asked again',
      ),
    ],
  }[looked.state];
  return {
    input,
    format: 'an identifier',
    messages: told,
    candidates: [candidate(index, record, provenance, { origin })],
  };
}
