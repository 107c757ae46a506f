import type { Read } from './moment.ts';
import { plainWords } from './words.ts';

/** Someone or something with a name: a person, a client, an asset. */
export interface Nameable {
  readonly name: string;
}

/**
 * The one whose name the words begin with: the whole name, or, for people, a first or last name that nobody else has.
 * The longest that fits is taken: "Crane 12" is not Crane 1.
 */
export function readName<T extends Nameable>(
  words: readonly string[],
  among: readonly T[],
  { byOneName }: { readonly byOneName: boolean },
): Read<T> | null {
  let best: Read<T> | null = null;
  for (const one of among) {
    const name = plainWords(one.name);
    if (name.length > (best?.words ?? 0) && name.every((word, i) => words[i] === word))
      best = { value: one, words: name.length };
  }
  if (best || !byOneName) return best;
  const [word = ''] = words;
  const called = among.filter(({ name }) => {
    const parts = plainWords(name);
    return parts.length > 1 && (parts[0] === word || parts.at(-1) === word);
  });
  return called.length === 1 && called[0] ? { value: called[0], words: 1 } : null;
}

/** Those whose names begin with what is typed so far, at any word of the name; the best matches first. */
export function namesBeginning<T extends Nameable>(typed: readonly string[], among: readonly T[], most: number): T[] {
  if (typed.length === 0) return [];
  const begins = (name: readonly string[], from: number) =>
    typed.every((word, i) =>
      i === typed.length - 1 ? (name[from + i] ?? '').startsWith(word) : name[from + i] === word,
    );
  const ranked = among.flatMap((one) => {
    const name = plainWords(one.name);
    const at = name.findIndex((_, from) => begins(name, from));
    return at === -1 || typed.length > name.length ? [] : [{ one, at }];
  });
  return ranked
    .sort((a, b) => a.at - b.at || a.one.name.localeCompare(b.one.name))
    .slice(0, most)
    .map(({ one }) => one);
}
