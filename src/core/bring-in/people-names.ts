import { plainWords } from '../capture/words.ts';

interface Named {
  readonly id: string;
  readonly name: string;
}

/** Who can be meant by a name as somebody wrote it: one, none, or several, of whom none is taken. */
export type Meant = { readonly kind: 'one'; readonly id: string } | { readonly kind: 'none' | 'several' };

/** A name as what is meant by it is kept: "A. Quill" and "a quill" are one. */
export const nameKey = (text: string): string => plainWords(text).filter(Boolean).join(' ');

/** "Ayesha Quill", "Quill, Ayesha", "A. Quill", "Ayesha", "Rhona V": each word begins a word of the name, in either order. */
export function whoIsMeant(text: string, people: readonly Named[]): Meant {
  const words = plainWords(text).filter(Boolean);
  if (words.length === 0) return { kind: 'none' };
  const asked = words.join(' ');
  const turned = [...words].reverse().join(' ');
  const whole = people.filter(({ name }) => {
    const plain = nameKey(name);
    return plain === asked || plain === turned;
  });
  const found = whole.length > 0 ? whole : people.filter(({ name }) => fits(words, plainWords(name).filter(Boolean)));
  const [only] = found;
  if (found.length === 1 && only) return { kind: 'one', id: only.id };
  return { kind: found.length === 0 ? 'none' : 'several' };
}

/** Each word begins another word of the name. */
function fits(words: readonly string[], name: readonly string[]): boolean {
  const left = [...name];
  return words.every((word) => {
    const at = left.findIndex((one) => one.startsWith(word));
    if (at === -1) return false;
    left.splice(at, 1);
    return true;
  });
}
