import { hash, verify } from '@node-rs/argon2';

/** argon2id with the parameters that OWASP's password storage cheat sheet names first: 19 MiB, 2 passes, 1 lane. */
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

export function hashPassword(password: string): Promise<string> {
  return hash(password, COST);
}

/** Checked when nobody has the address given, so that the answer takes as long as with a wrong password. */
const NOBODYS_HASH = hashPassword('nobody has this password');

/** Whether the password is right; false too where there is no such account. */
export async function passwordMatches(passwordHash: string | null, password: string): Promise<boolean> {
  const matches = await verify(passwordHash ?? (await NOBODYS_HASH), password);
  return matches && passwordHash !== null;
}
