import { createHash, randomBytes } from 'node:crypto';

/** 256 bits that nobody can guess. What is kept of them is a digest: whoever reads the database gets in by none. */
export function newToken(): { readonly token: string; readonly digest: string } {
  const token = randomBytes(32).toString('base64url');
  return { token, digest: digestOf(token) };
}

export const digestOf = (token: string): string => createHash('sha256').update(token).digest('hex');
