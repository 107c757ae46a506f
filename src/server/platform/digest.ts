import { createHash, randomBytes } from 'node:crypto';

/** 256 bits that nobody can guess, behind what they are known by. What is kept of them is a digest: whoever reads the database gets in by none. */
export function newToken(mark = ''): { readonly token: string; readonly digest: string } {
  const token = `${mark}${randomBytes(32).toString('base64url')}`;
  return { token, digest: digestOf(token) };
}

export const digestOf = (token: string): string => createHash('sha256').update(token).digest('hex');
