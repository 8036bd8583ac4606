/**
 * Fetching from outside at a person's word: only over HTTP, never to this machine or its network, within limits of size and
 * time. What a name resolves to is checked as the connection is made, so that neither a redirect nor a second answer of
 * the name service leads inside.
 */
import { lookup } from 'node:dns';
import { isIP, type LookupFunction } from 'node:net';
import ipaddr from 'ipaddr.js';
import { Agent, buildConnector, fetch as fetchWith } from 'undici';

/** Why an address could not be read, in a sentence for the person. */
export class Unreachable extends Error {
  constructor(
    message: string,
    /** Trying again would be no use. */
    readonly refused: boolean,
  ) {
    super(message);
  }
}

export interface Fetched {
  text: string;
  bytes: Buffer;
  /** After redirects. */
  address: string;
  type: string;
  status: number;
  headers: Headers;
}

export interface Fetching {
  accept?: string;
  /** In bytes, after unpacking. */
  most?: number;
  withinMs?: number;
  signal?: AbortSignal;
  /** A catalogue is asked: it may be of this network where the operator listed it. Where it leads on to may not. */
  catalogue?: boolean;
}

export const OUR_NAME = 'Pandecta/0.1 (research library; +https://pandecta.example/fetching)';
const MOST_BYTES = 10 * 1024 ** 2;
const PATIENCE_MS = 20_000;
const MOST_REDIRECTS = 5;

/** What is given out of the public network of IPv6 (RFC 4291, 2.4): all else, such as “::127.0.0.1”, leads elsewhere. */
const GLOBAL_UNICAST = ipaddr.parseCIDR('2000::/3');

/** Whether an address of the network is of the public one. */
export function isPublic(address: string): boolean {
  try {
    const parsed = ipaddr.process(address);
    return parsed.range() === 'unicast' && (parsed.kind() === 'ipv4' || parsed.match(GLOBAL_UNICAST));
  } catch {
    return false;
  }
}

/** Names the operator of this server leads elsewhere, as a hosts file does: "name" to "address:port". */
export type Hosts = Record<string, string>;

export const readHosts = (text: string | undefined): Hosts =>
  Object.fromEntries(
    (text ?? '')
      .split(/[\s,]+/)
      .flatMap((pair) => (pair.includes('=') ? [pair.split('=', 2) as [string, string]] : [])),
  );

/** Reads the list of private hosts that may be asked as catalogues, which the operator sets when starting the server. */
export const readInside = (text: string | undefined): ReadonlySet<string> =>
  new Set(
    (text ?? '')
      .toLowerCase()
      .split(/[\s,]+/)
      .filter(Boolean),
  );

export class Fetcher {
  private readonly agent: Agent;
  /** For catalogues, which may be of this network where they are listed. */
  private readonly toCatalogues: Agent;

  constructor(
    private readonly hosts: Hosts = {},
    private readonly inside: ReadonlySet<string> = new Set(),
  ) {
    const within = { headersTimeout: PATIENCE_MS, bodyTimeout: PATIENCE_MS };
    this.agent = new Agent({ connect: this.connector(false), ...within });
    this.toCatalogues = new Agent({ connect: this.connector(true), ...within });
  }

  private connector(toCatalogues: boolean): buildConnector.connector {
    const refuse = (host: string): Error =>
      new Unreachable(`${host} is an address inside this network: it is not visited`, true);
    const resolve: LookupFunction = (name, options, done) =>
      lookup(name, { ...options, all: true }, (error, found) => {
        if (error) return done(error, '', 0);
        const inside = found.find((f) => !isPublic(f.address));
        if (inside) return done(refuse(name), '', 0);
        return options.all
          ? (done as (e: null, a: typeof found) => void)(null, found)
          : done(null, found[0]!.address, found[0]!.family);
      });
    const guarded = buildConnector({ lookup: resolve, timeout: 8000 });
    const plain = buildConnector({ timeout: 8000 });
    return (options, done) => {
      const led = this.hosts[options.hostname];
      if (led) {
        const [hostname, at] = led.split(':') as [string, string];
        return plain({ ...options, protocol: 'http:', hostname, host: led, port: at }, done);
      }
      const port = options.port || (options.protocol === 'https:' ? '443' : '80');
      const isListed = this.inside.has(options.hostname) || this.inside.has(`${options.hostname}:${port}`);
      if (toCatalogues && isListed) return plain(options, done);
      const bare = options.hostname.replace(/^\[|\]$/g, '');
      if (isIP(bare) && !isPublic(bare)) return done(refuse(options.hostname), null);
      return guarded(options, done);
    };
  }

  /** @throws Unreachable with the reason */
  async get(
    address: string,
    {
      accept = 'text/html, */*;q=0.5',
      most = MOST_BYTES,
      withinMs = PATIENCE_MS,
      signal,
      catalogue = false,
    }: Fetching = {},
  ): Promise<Fetched> {
    const ends = AbortSignal.any([AbortSignal.timeout(withinMs), ...(signal ? [signal] : [])]);
    let at = address;
    for (let hop = 0; ; hop += 1) {
      const url = urlOf(at);
      const answer = await this.ask(url, accept, ends, catalogue && hop === 0);
      const location = answer.headers.get('location');
      if (answer.status >= 300 && answer.status < 400 && location) {
        if (hop >= MOST_REDIRECTS)
          throw new Unreachable(`${url.host} leads from one address to the next without end`, true);
        at = ledTo(location, url);
        continue;
      }
      const bytes = await readAll(answer.body as AsyncIterable<Uint8Array> | null, most, url.host, ends);
      const type = answer.headers.get('content-type') ?? '';
      return {
        text: textOf(bytes, type),
        bytes,
        address: url.href,
        type,
        status: answer.status,
        headers: answer.headers as unknown as Headers,
      };
    }
  }

  private async ask(
    url: URL,
    accept: string,
    signal: AbortSignal,
    catalogue: boolean,
  ): Promise<Awaited<ReturnType<typeof fetchWith>>> {
    try {
      return await fetchWith(url, {
        dispatcher: catalogue ? this.toCatalogues : this.agent,
        redirect: 'manual',
        signal,
        headers: { accept, 'user-agent': OUR_NAME },
      });
    } catch (error) {
      throw reasonOf(error, url.host);
    }
  }

  async close(): Promise<void> {
    await Promise.all([this.agent.destroy(), this.toCatalogues.destroy()]);
  }
}

function ledTo(location: string, from: URL): string {
  try {
    return new URL(location, from).href;
  } catch {
    throw new Unreachable(`${from.host} leads on to “${location.slice(0, 200)}”, which is no address`, true);
  }
}

function urlOf(address: string): URL {
  let url: URL;
  try {
    url = new URL(address);
  } catch {
    throw new Unreachable(`“${address.slice(0, 200)}” is not an address`, true);
  }
  if (!/^https?:$/.test(url.protocol))
    throw new Unreachable(`Only http and https are fetched, not ${url.protocol}`, true);
  if (url.username || url.password) throw new Unreachable('An address with a password in it is not fetched', true);
  return url;
}

function reasonOf(error: unknown, host: string): Unreachable {
  for (let e = error; e instanceof Error; e = e.cause) {
    if (e instanceof Unreachable) return e;
    if (e.name === 'TimeoutError' || e.name === 'AbortError')
      return new Unreachable(`${host} did not answer in time`, false);
  }
  return new Unreachable(`${host} could not be reached`, false);
}

/** Counts what is unpacked, not what was sent: a small answer may unpack to a very large one. */
async function readAll(
  body: AsyncIterable<Uint8Array> | null,
  most: number,
  host: string,
  signal: AbortSignal,
): Promise<Buffer> {
  const parts: Uint8Array[] = [];
  let size = 0;
  try {
    for await (const part of body ?? []) {
      size += part.length;
      if (size > most) throw new Unreachable(`${host} sends more than ${Math.round(most / 1024 ** 2)} MB`, true);
      if (signal.aborted) throw signal.reason as Error;
      parts.push(part);
    }
  } catch (error) {
    throw reasonOf(error, host);
  }
  return Buffer.concat(parts);
}

function textOf(bytes: Buffer, type: string): string {
  const said =
    /charset=["']?([\w-]+)/i.exec(type)?.[1] ??
    /<meta[^>]+charset=["']?([\w-]+)/i.exec(bytes.subarray(0, 2048).toString('latin1'))?.[1];
  try {
    return new TextDecoder(said ?? 'utf-8').decode(bytes);
  } catch {
    return new TextDecoder('utf-8').decode(bytes);
  }
}
