/** Errors leave as problem documents (RFC 9457). What went wrong inside is logged and never shown; what was sent is neither. */
import { STATUS_CODES, type IncomingMessage } from 'node:http';
import type { Duplex } from 'node:stream';
import { setTimeout } from 'node:timers/promises';
import type { FastifyError, FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import { MOST_FILE_BYTES, MOST_FILES } from '@pandecta/contract';
import { formatNumber } from '@pandecta/core/wording';
import { codeOf, GAVE_UP, isFull, isUnavailable } from '../database/connect.ts';
import { Refusal } from '../errors.ts';

const TOO_MANY_MS = 1000;
/** Whoever runs the machine has to know of these: nobody who asks can do anything about them. */
const OF_MACHINE: ReadonlySet<Refusal['code']> = new Set(['disk_full', 'unavailable']);

const PROBLEM = 'application/problem+json';

/** A limit as it is said: "16 KB", "500 MB". */
export const bytesInWords = (bytes: number): string =>
  bytes >= 1024 ** 2 ? `${Math.floor(bytes / 1024 ** 2)} MB` : `${Math.floor(bytes / 1024)} KB`;

/** What is said of an error the framework has, by its code; none quotes what was sent. */
const OF_FRAMEWORK: Record<string, (request: FastifyRequest) => Refusal> = {
  FST_REQ_FILE_TOO_LARGE: () => new Refusal('file_too_large', bytesInWords(MOST_FILE_BYTES)),
  FST_FILES_LIMIT: () => new Refusal('invalid', `at most ${formatNumber(MOST_FILES)} files go at once`),
  FST_ERR_CTP_BODY_TOO_LARGE: (request) =>
    new Refusal('body_too_large', bytesInWords(request.routeOptions?.bodyLimit ?? 0)),
  FST_ERR_CTP_INVALID_JSON_BODY: () => new Refusal('invalid', 'it is not JSON'),
  FST_ERR_CTP_EMPTY_JSON_BODY: () => new Refusal('invalid', 'it says that JSON comes, and there is none'),
  FST_ERR_CTP_INVALID_MEDIA_TYPE: () => new Refusal('invalid', 'content of this type is not taken here'),
  FST_ERR_CTP_INVALID_CONTENT_LENGTH: () => new Refusal('invalid', 'it is not as long as it says'),
  FST_ERR_BAD_URL: () => new Refusal('invalid', 'its address is malformed'),
};

/** What whoever asked is told of an error; undefined where it is the server's own fault. */
function refusalOf(error: FastifyError, request: FastifyRequest): Refusal | undefined {
  const code = codeOf(error);
  if (error instanceof Refusal) return error;
  if (code === GAVE_UP.timeout) return new Refusal('too_slow');
  if (code === GAVE_UP.lock || code === GAVE_UP.deadlock) return new Refusal('busy');
  if (isFull(error)) return new Refusal('disk_full');
  if (isUnavailable(error)) return new Refusal('unavailable');
  const known = OF_FRAMEWORK[error.code];
  if (known) return known(request);
  if (error.statusCode && error.statusCode < 500) return new Refusal('invalid', 'it could not be read');
  return undefined;
}

export function registerProblems(app: FastifyInstance): void {
  app.setErrorHandler(async (error: FastifyError, request, reply) => {
    const refusal = refusalOf(error, request);
    if (!refusal || OF_MACHINE.has(refusal.code)) request.log.error({ err: error }, 'the request failed');
    // Who sends too much is answered slowly: whoever waits for an answer sends less.
    if (refusal?.status === 429) await setTimeout(TOO_MANY_MS);
    return refuse(reply, refusal ?? new Refusal('failed'));
  });
  app.setNotFoundHandler((request, reply) => {
    const path = request.url.split('?')[0]!;
    // An address of the page, not a file that is missing.
    if (!path.startsWith('/api/') && !/\.\w+$/.test(path) && request.method === 'GET' && 'sendFile' in reply) {
      return reply.sendFile('index.html', { maxAge: 0, immutable: false });
    }
    return refuse(reply, new Refusal('no_such_page'));
  });
}

/** Errors before a request is one of a route: an address that cannot be read. */
export function refuseUnrouted(error: FastifyError, request: FastifyRequest, reply: FastifyReply): void {
  void refuse(reply, refusalOf(error, request) ?? new Refusal('failed'));
}

/** What is no HTTP, or comes too slowly to be waited for, is answered past the framework, and the connection ends. */
export function refuseConnection(error: Error & { code?: string }, socket: Duplex): void {
  if (error.code === 'ECONNRESET' || !socket.writable) return void socket.destroy();
  const late = error.code === 'ERR_HTTP_REQUEST_TIMEOUT';
  endWith(socket, late ? new Refusal('too_late') : new Refusal('invalid', 'it is not HTTP'));
}

function endWith(socket: Duplex, refusal: Refusal): void {
  const body = JSON.stringify(problem(refusal));
  socket.end(
    `HTTP/1.1 ${refusal.status} ${STATUS_CODES[refusal.status]}\r\nconnection: close\r\ncontent-type: ${PROBLEM}\r\ncontent-length: ${Buffer.byteLength(body)}\r\n\r\n${body}`,
  );
}

/** Ends a request whose body does not come: nobody reads its connection any more. */
export const refuseLate = (raw: IncomingMessage): void => {
  endWith(raw.socket, new Refusal('too_late'));
  raw.socket.destroySoon();
};

function refuse(reply: FastifyReply, refusal: Refusal): FastifyReply {
  if (refusal.retryAfter !== undefined) void reply.header('retry-after', Math.ceil(refusal.retryAfter));
  return reply.status(refusal.status).type(PROBLEM).send(problem(refusal));
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
