/**
 * How often one may try a password. Nobody is locked out: whoever guesses is slowed down. Attempts are counted three ways:
 * of one address at one account, which after some must wait between two, longer each time; and of an account and of an
 * address in all, which after very many are answered a little later. So a stranger cannot keep a person from signing in at
 * their own desk, and a success makes nobody forget what others tried. Kept is only a digest of who tried what.
 */
import { createHash } from 'node:crypto';
import { setTimeout } from 'node:timers/promises';
import { and, eq, sql } from 'drizzle-orm';
import ipaddr from 'ipaddr.js';
import { transact, type Db } from '../database/connect.ts';
import { number, one } from '../database/read.ts';
import { beyond } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import { AtOnce } from './at-once.ts';
import { signInAttempts } from './tables.ts';

/** So many attempts of one address at one account within a quarter of an hour are nobody's guessing. */
const FREE = 5;
const MOST_WAIT_S = 60;
/** More of one account, or of one address, are more than people make. */
const MANY = 100;
const LATER_MS = 2_000;
/** Of one address at the same time. */
const AT_ONCE = 4;

/** How long one waits after so many attempts, in seconds. */
export const waitAfter = (attempts: number): number =>
  attempts < FREE ? 0 : Math.min(MOST_WAIT_S, 2 ** (attempts - FREE + 1));

/** An address as it is counted: of version 6 the network a household is given (RFC 6177), since it has as many as it likes. */
export function networkOf(address: string): string {
  if (!ipaddr.isValid(address)) return address;
  const read = ipaddr.process(address);
  return read.kind() === 'ipv6'
    ? ipaddr.IPv6.networkAddressFromCIDR(`${read.toString()}/64`).toString()
    : read.toString();
}

const digest = (...of: string[]): string => createHash('sha256').update(JSON.stringify(of)).digest('base64url');

const trying = new AtOnce(AT_ONCE);

/**
 * Does the work that finds out whether a password is right, counted before anything of it is done.
 * @returns what the work says; where that is true, what this address tried at this account is forgotten
 * @throws Refusal that says how long to wait
 */
export async function attempt(
  db: Db,
  account: string,
  address: string,
  work: () => Promise<boolean>,
): Promise<boolean> {
  const network = networkOf(address);
  const end = trying.begin(network);
  if (!end) throw tooMany(LATER_MS / 1000);
  try {
    const pair = digest(account, network);
    const [ofAccount, ofNetwork] = [digest('account', account), digest('address', network)];
    await count(db, pair, [ofAccount, ofNetwork]);
    if ((await inAll(db, [ofAccount, ofNetwork])) > MANY) await setTimeout(LATER_MS);
    const right = await work();
    if (right) await beyond(db).delete(signInAttempts).where(eq(signInAttempts.who, pair));
    return right;
  } finally {
    end();
  }
}

// A clock that was set back leaves attempts in what is to come: they count for nothing. One who waited for another has an
// earlier now() than theirs.
const LATELY = sql`at between now() - interval '15 minutes' and clock_timestamp()`;

async function count(db: Db, pair: string, others: string[]): Promise<void> {
  const left = await transact(db, async (tx) => {
    // Many at once are counted one after another.
    await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${pair}, 0))`);
    const { n, since } = (await one(
      tx,
      { n: number, since: number },
      sql`select count(*)::int as n, coalesce(extract(epoch from clock_timestamp() - max(at))::float8, 0) as since
        from sign_in_attempts where who = ${pair} and ${LATELY}`,
    ))!;
    const wait = waitAfter(n) - since;
    if (wait > 0) return wait;
    await beyond(tx)
      .insert(signInAttempts)
      .values([pair, ...others].map((who) => ({ who })));
    return 0;
  });
  if (left > 0) throw tooMany(left);
}

async function inAll(db: Db, who: string[]): Promise<number> {
  const found = await beyond(db)
    .select({ n: sql<number>`count(*)::int` })
    .from(signInAttempts)
    .where(and(sql`${signInAttempts.who} in ${who}`, LATELY))
    .groupBy(signInAttempts.who);
  return Math.max(0, ...found.map((f) => f.n));
}

function tooMany(seconds: number): Refusal {
  const whole = Math.ceil(seconds);
  const refusal = new Refusal('too_many_attempts', whole === 1 ? 'a second' : `${whole} seconds`);
  refusal.retryAfter = whole;
  return refusal;
}

/** Attempts count for a quarter of an hour. */
export async function forgetOldAttempts(db: Db): Promise<void> {
  await beyond(db)
    .delete(signInAttempts)
    .where(sql`${signInAttempts.at} < now() - interval '1 hour'`);
}
