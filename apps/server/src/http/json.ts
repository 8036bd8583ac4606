/** Reads the JSON of a request, and refuses what would take long before it takes long. */
import type { FastifyInstance } from 'fastify';
import { formatNumber } from '@pandecta/core/wording';
import { Refusal } from '../errors.ts';

/** Deeper than anything that is sent here. */
const DEEPEST = 64;
const MOST_KEYS = 10_000;

/**
 * @throws Refusal where JSON is nested too deeply or has too many keys; told in one pass, before it is read
 */
export function refuseUnwieldy(json: string): void {
  let depth = 0;
  let keys = 0;
  for (let i = 0; i < json.length; i += 1) {
    switch (json.charCodeAt(i)) {
      case 0x22: // "
        for (i += 1; i < json.length && json.charCodeAt(i) !== 0x22; i += 1) if (json.charCodeAt(i) === 0x5c) i += 1;
        break;
      case 0x5b: // [
      case 0x7b: // {
        depth += 1;
        if (depth > DEEPEST) throw new Refusal('invalid', `it is nested more than ${DEEPEST} deep`);
        break;
      case 0x5d: // ]
      case 0x7d: // }
        depth -= 1;
        break;
      case 0x3a: // :
        keys += 1;
        if (keys > MOST_KEYS) throw new Refusal('invalid', `it has more than ${formatNumber(MOST_KEYS)} keys`);
    }
  }
}

export function registerJson(app: FastifyInstance): void {
  const parse = app.getDefaultJsonParser('error', 'error');
  app.removeContentTypeParser('application/json');
  app.addContentTypeParser('application/json', { parseAs: 'string' }, (request, body, done) => {
    try {
      refuseUnwieldy(body as string);
    } catch (error) {
      done(error as Error);
      return;
    }
    void parse(request, body as string, done);
  });
}
