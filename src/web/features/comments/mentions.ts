import { plainWords } from '../../../core/index.ts';

/** Somebody who can be named in a comment. */
export interface Nameable {
  readonly id: string;
  readonly name: string;
}

/** What is typed after an `@` up to the caret, and where that begins; null where no name is being typed. */
export function nameBeingTyped(text: string, caret: number): { readonly at: number; readonly typed: string } | null {
  const before = text.slice(0, caret);
  const at = before.lastIndexOf('@');
  if (at === -1 || (at > 0 && /[\p{L}\p{N}@.]/u.test(before[at - 1] ?? ''))) return null;
  const typed = before.slice(at + 1);
  return /^[\p{L}\p{M}'’.-]*(?: [\p{L}\p{M}'’.-]*)?$/u.test(typed) && typed.length <= 40 ? { at, typed } : null;
}

/** The text with a name in the place of what was typed of it, and where the caret stands then. */
export function withName(
  text: string,
  { at, typed }: { readonly at: number; readonly typed: string },
  name: string,
): { readonly text: string; readonly caret: number } {
  const rest = text.slice(at + 1 + typed.length);
  const put = `@${name}${/^\s/.test(rest) ? '' : ' '}`;
  return { text: text.slice(0, at) + put + rest, caret: at + put.length + (/^\s/.test(rest) ? 1 : 0) };
}

/** Those whose names fit what is typed, at the beginning of one of their names before elsewhere. */
export function nameable<One extends Nameable>(typed: string, people: readonly One[], most: number): One[] {
  const asked = plainWords(typed).join(' ');
  const names = people.map((one) => ({ one, name: plainWords(one.name).join(' ') }));
  const begins = ({ name }: { readonly name: string }) => ` ${name}`.includes(` ${asked}`);
  return [...names.filter(begins), ...names.filter((one) => !begins(one) && one.name.includes(asked))]
    .slice(0, most)
    .map(({ one }) => one);
}

/** Of those who were chosen, whoever's name still stands in the text. */
export function namedIn<One extends Nameable>(text: string, chosen: readonly One[]): One[] {
  return chosen.filter(({ name }) => text.includes(`@${name}`));
}
