import { availableParallelism } from 'node:os';
import { hash, verify } from '@node-rs/argon2';
import { Turns } from '../platform/http/turns.ts';

/** argon2id with the parameters that OWASP's password storage cheat sheet names first: 19 MiB, 2 passes, 1 lane. */
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

/** Passwords worked on at once: a core stays for all else, and so do threads that files and the database's sign-in need too. */
const AT_ONCE = Math.min(2, Math.max(1, availableParallelism() - 1));
const turns = new Turns({ each: AT_ONCE, all: AT_ONCE, waiting: 200 });

async function inTurn<T>(work: () => Promise<T>): Promise<T> {
  const end = await turns.enter('passwords');
  try {
    return await work();
  } finally {
    end();
  }
}

export function hashPassword(password: string): Promise<string> {
  return inTurn(() => hash(password, COST));
}

/** Checked when nobody has the address given, so that the answer takes as long as with a wrong password. */
const NOBODYS_HASH = hashPassword('nobody has this password');

/** Whether the password is right; false too where there is no such account. */
export async function passwordMatches(passwordHash: string | null, password: string): Promise<boolean> {
  const given = passwordHash ?? (await NOBODYS_HASH);
  const matches = await inTurn(() => verify(given, password));
  return matches && passwordHash !== null;
}
