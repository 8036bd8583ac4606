/** The stream of news: server-sent events (HTML Living Standard, 9.2). */
import { routes, type Touched } from '@pandecta/contract';
import { Refusal } from '../errors.ts';
import { hashOf } from '../access/store.ts';
import { authorise, SESSION_COOKIE } from '../http/authorise.ts';
import { AtOnce } from '../access/at-once.ts';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';

/** How often a silent stream says something, so that nothing between closes it; and its reader's rights are looked at. */
const BEAT_MS = 20_000;

/** More pages than a person has open. */
const MOST_OF_EACH = 30;
/** Who reads so far behind what is told begins anew. */
const MOST_UNREAD = 256 * 1024;

export function liveRoutes(declare: Declare, services: Services): void {
  const open = new AtOnce(MOST_OF_EACH);
  declare(routes.live.stream, ({ workspace, user, request, reply }) => {
    const end = open.begin(user.id);
    if (!end) throw new Refusal('too_many_at_once');
    reply.hijack();
    const { raw } = reply;
    raw.writeHead(200, {
      'content-type': 'text/event-stream; charset=utf-8',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
    });
    raw.write('retry: 1000\n\n');
    const silence = services.live.listen({
      workspace: workspace.id,
      user: user.id,
      session: hashOf(request.cookies[SESSION_COOKIE] ?? ''),
      end: () => raw.end(),
      tell: (touched) => {
        const told = workspace.bounds ? withoutIds(touched) : touched;
        raw.write(`event: touched\ndata: ${JSON.stringify(told)}\n\n`);
        if (raw.writableLength > MOST_UNREAD) raw.destroy();
      },
    });
    const beat = setInterval(() => {
      authorise(services, request, routes.live.stream).then(
        () => raw.write(': here\n\n'),
        () => raw.end(),
      );
    }, BEAT_MS);
    raw.on('close', () => {
      clearInterval(beat);
      end();
      silence();
    });
    return reply;
  });
}

/** For one who sees only part of the workspace: which kinds were touched, and nothing that names one. */
const withoutIds = ({ everything, kinds }: Touched): Touched => ({
  ...(everything && { everything }),
  kinds: Object.fromEntries(Object.keys(kinds).map((kind) => [kind, 'all'])),
});
