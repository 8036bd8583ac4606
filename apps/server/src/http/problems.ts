/** Errors leave as problem documents (RFC 9457). What went wrong inside is logged and never shown. */
import type { FastifyInstance } from 'fastify';
import { codeOf, GAVE_UP, isUnavailable } from '../database/connect.ts';
import { Refusal } from '../errors.ts';

export function registerProblems(app: FastifyInstance): void {
  app.setErrorHandler(
    (error: Error & { statusCode?: number; code?: string; cause?: { code?: string } }, request, reply) => {
      let refusal: Refusal;
      const gaveUp = codeOf(error);
      if (error instanceof Refusal) refusal = error;
      else if (gaveUp === GAVE_UP.timeout) refusal = new Refusal('too_slow');
      else if (gaveUp === GAVE_UP.lock || gaveUp === GAVE_UP.deadlock) refusal = new Refusal('busy');
      else if (isUnavailable(error)) refusal = new Refusal('unavailable');
      else if (error.code === 'FST_REQ_FILE_TOO_LARGE') refusal = new Refusal('file_too_large', '500 MB');
      else if (error.code === 'FST_ERR_CTP_BODY_TOO_LARGE') refusal = new Refusal('body_too_large');
      else if (error.statusCode && error.statusCode < 500) refusal = new Refusal('invalid', error.message);
      else {
        request.log.error({ err: error }, 'the request failed');
        refusal = new Refusal('failed');
      }
      void reply.status(refusal.status).type('application/problem+json').send(problem(refusal));
    },
  );
  app.setNotFoundHandler((request, reply) => {
    const path = request.url.split('?')[0]!;
    // An address of the page, not a file that is missing.
    if (!path.startsWith('/api/') && !/\.\w+$/.test(path) && request.method === 'GET' && 'sendFile' in reply) {
      return reply.sendFile('index.html', { maxAge: 0, immutable: false });
    }
    return reply
      .status(404)
      .type('application/problem+json')
      .send(problem(new Refusal('no_such_page')));
  });
}

function problem(r: Refusal): Record<string, unknown> {
  return {
    type: `/api/problems#${r.code}`,
    title: r.code.replaceAll('_', ' '),
    status: r.status,
    code: r.code,
    detail: r.message,
    ...r.more,
  };
}
