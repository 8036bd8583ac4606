/**
 * A body that does not come keeps nobody waiting: JSON has a minute, and files may take as long as they like while they
 * come at all. Whoever sends one byte now and then is not sending.
 */
import type { FastifyRequest } from 'fastify';
import { refuseLate } from './problems.ts';

export interface Pace {
  /** Within which all of a body that is no form has to be there. */
  wholeMs: number;
  /** How often it is looked whether files still come, and how many bytes must have come since. */
  everyMs: number;
  leastBytes: number;
  /** For the lines before the body. */
  headersMs: number;
}

export const PACE: Pace = { wholeMs: 60_000, everyMs: 20_000, leastBytes: 20 * 1024, headersMs: 20_000 };

/** From now on its body has so long. */
export function watchPace(request: FastifyRequest, { wholeMs, everyMs, leastBytes }: Pace): void {
  const { raw } = request;
  if (raw.complete || (!raw.headers['content-length'] && !raw.headers['transfer-encoding'])) return;
  const files = /^multipart\//.test(raw.headers['content-type'] ?? '');
  let seen = raw.socket?.bytesRead ?? 0;
  const timer = setInterval(
    () => {
      if (raw.complete || raw.destroyed) return clearInterval(timer);
      const now = raw.socket.bytesRead;
      // A form that is not read just now, since the disk is slow, is not to blame for what it does not send.
      if (files && (now - seen >= leastBytes || raw.isPaused() || raw.readableLength > 0)) {
        seen = now;
        return;
      }
      clearInterval(timer);
      refuseLate(raw);
    },
    files ? everyMs : wholeMs,
  );
  timer.unref();
  // All of it is there, or nobody waits for it any more.
  for (const event of ['end', 'close']) raw.once(event, () => clearInterval(timer));
}
