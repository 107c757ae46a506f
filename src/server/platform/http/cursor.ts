import { z } from 'zod';
import { invalid } from '../refusal.ts';

const cursorSchema = z.tuple([z.string(), z.uuid()]);

/** Where a page of a list begins: after this name and id (keyset paging). */
export function readCursor(text: string | undefined): readonly [string, string] | undefined {
  if (text === undefined) return undefined;
  const cursor = cursorSchema.safeParse(tryJson(text));
  if (!cursor.success) throw invalid([{ path: 'after', message: 'This is not a place in the list.' }]);
  return cursor.data;
}

function tryJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    if (error instanceof SyntaxError) return undefined;
    throw error;
  }
}
