/** Asking a host politely, whoever of the house asks: few questions at a time, and none while it asked to be left alone. */
import PQueue from 'p-queue';
import { Unreachable, type Fetched, type Fetcher, type Fetching } from './fetch.ts';

const PATIENCE_MS = 15_000;
const MOST_BYTES = 20 * 1024 ** 2;

/** Two questions at a time and no more than four a second for each host, whoever asks. */
const lines = new Map<string, PQueue>();
const lineOf = (host: string): PQueue => {
  const known = lines.get(host);
  if (known) return known;
  const line = new PQueue({ concurrency: 2, interval: 1000, intervalCap: 4 });
  lines.set(host, line);
  return line;
};
/** Until when a host asked to be left alone (RFC 9110, 10.2.3). */
const restUntil = new Map<string, number>();

/**
 * @throws Unreachable with the reason, in a sentence
 */
export async function politely(
  fetcher: Fetcher,
  address: string,
  how: Pick<Fetching, 'accept' | 'catalogue'>,
): Promise<Fetched> {
  const { host } = new URL(address);
  const rest = (restUntil.get(host) ?? 0) - Date.now();
  if (rest > 0) throw new Unreachable(`It asked not to be contacted for ${Math.ceil(rest / 1000)} s more`, false);
  return lineOf(host).add(async () => {
    const reply = await fetcher.get(address, { ...how, most: MOST_BYTES, withinMs: PATIENCE_MS });
    if (reply.status === 429 || reply.status === 503) {
      const seconds = waitOf(reply.headers.get('retry-after'));
      restUntil.set(host, Date.now() + seconds * 1000);
      throw new Unreachable(`It asks to wait ${seconds} s before the next question`, false);
    }
    if (reply.status >= 400) throw new Unreachable(`It answered with the error ${reply.status}`, reply.status < 500);
    return reply;
  });
}

/** Seconds, or a date; a minute where it is neither, an hour at most. */
function waitOf(text: string | null): number {
  const seconds = /^\d+$/.test(text ?? '') ? Number(text) : Math.round((Date.parse(text ?? '') - Date.now()) / 1000);
  return Math.min(3600, Math.max(1, Number.isFinite(seconds) ? seconds : 60));
}
