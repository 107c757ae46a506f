/** A NUL, which no text of PostgreSQL can hold, or half of a surrogate pair, which no UTF-8 can (RFC 3629, section 3). */
const UNKEEPABLE = /[\0\p{Surrogate}]/u;

/** Where a value holds a text that the database can't keep, as a path of keys; null where it holds none. */
export function unkeepableAt(value: unknown, path = ''): string | null {
  if (typeof value === 'string') return UNKEEPABLE.test(value) ? path : null;
  if (value === null || typeof value !== 'object') return null;
  for (const [key, member] of Object.entries(value)) {
    const at = path === '' ? key : `${path}.${key}`;
    if (UNKEEPABLE.test(key)) return path;
    const found = unkeepableAt(member, at);
    if (found !== null) return found;
  }
  return null;
}
