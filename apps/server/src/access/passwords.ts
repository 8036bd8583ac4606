/**
 * Passwords as they are kept: argon2id (RFC 9106). To make or check one takes a tenth of a second of a processor, so one is
 * done at a time: who sends very many waits for themselves, and the server has its other processors.
 */
import { hash, verify } from '@node-rs/argon2';
import PQueue from 'p-queue';

const one = new PQueue({ concurrency: 1 });

/** The argon2id hash of no one's password: verified where there is no such user, so that both answers take as long. */
const NOBODYS_HASH =
  '$argon2id$v=19$m=19456,t=2,p=1$s17mlAPHxccWit9EEYyZSw$IbkRcwUxCd3UrE1k79Ysklq4/i70FkX4rtEjTd4cKUM';

export const hashPassword = (password: string): Promise<string> => one.add(() => hash(password));

/** @param kept what is kept of the password; undefined where there is no such account: never right, and as slow */
export async function isPassword(kept: string | undefined, password: string): Promise<boolean> {
  const right = await one.add(() => verify(kept ?? NOBODYS_HASH, password).catch(() => false));
  return right && kept !== undefined;
}
