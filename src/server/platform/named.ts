import type { Named } from '../../contract/index.ts';

/** An id with its name, where there is one. */
export function namedOrNull(id: string | null, name: string | null): Named | null {
  return id !== null && name !== null ? { id, name } : null;
}
