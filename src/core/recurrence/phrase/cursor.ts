import { isHabit, type PhraseHabits } from './habits.ts';
import { type NamedSeason, wordsOfSeason } from './named-seasons.ts';
import { cardinalNamed, monthNamed, ordinalNamed, phraseTokens, type Token, weekdayNamed } from './tokens.ts';

/** Parts of a phrase that can't both be meant. */
export interface Contradiction {
  readonly at: number;
  readonly length: number;
  readonly message: string;
}

/**
 * A place in a phrase, and what would have been understood at the farthest place that was reached: where reading fails,
 * that is what is said.
 */
export class PhraseCursor {
  private readonly tokens: readonly Token[];
  private at = 0;
  private farthest = 0;
  private readonly wanted = new Set<string>();
  /** Where there is more than one reading, and how many; by what is asked and where. */
  readonly asked = new Map<string, number>();
  private contradiction: Contradiction | null = null;

  /** @param picks which reading is taken where there are several; the first, likeliest one where nothing is said */
  constructor(
    readonly text: string,
    private readonly picks: ReadonlyMap<string, number> = new Map(),
    /** The month in which a year begins, and its quarters with it. */
    readonly yearStarts = 1,
    /** Questions that are not asked any more. */
    private readonly habits: PhraseHabits = {},
    private readonly seasons: readonly NamedSeason[] = [],
  ) {
    this.tokens = phraseTokens(text).filter(({ kind, text: piece }) => kind !== 'mark' || !/^[().:“”"']$/.test(piece));
  }

  /** Which of several readings is taken from here on: 0 is the likeliest. */
  pick(what: string, readings: number): number {
    const settled = isHabit(what) ? this.habits[what] : undefined;
    if (settled !== undefined) return settled;
    const key = `${what} ${this.at}`;
    this.asked.set(key, readings);
    return this.picks.get(key) ?? 0;
  }

  /** A place to come back to with `refuse`. */
  get place(): number {
    return this.at;
  }

  /** Can be read, but says two things that exclude each other: from a place up to here. Gives null, to be returned. */
  refuse(from: number, message: string): null {
    const [first, last] = [this.tokens[from], this.tokens[Math.max(from, this.at - 1)]];
    this.contradiction ??= first && last ? { at: first.at, length: last.end - first.at, message } : null;
    return null;
  }

  /** What excludes each other in the phrase, where that is why it was not read. */
  get refused(): Contradiction | null {
    return this.contradiction;
  }

  /** The place in the text after all that was read. */
  get readTo(): number {
    return this.tokens[this.at - 1]?.end ?? 0;
  }

  get isAtEnd(): boolean {
    return this.at >= this.tokens.length;
  }

  /** Where reading stopped, and what was expected there: words that fit as they are, and descriptions in brackets. */
  get failure(): { readonly token: Token | undefined; readonly expected: readonly string[] } {
    return { token: this.tokens[this.farthest], expected: [...this.wanted] };
  }

  /** Reads on; goes back to where it was when nothing comes of it. */
  try<T>(read: () => T | null): T | null {
    const from = this.at;
    const found = read();
    if (found === null) this.at = from;
    return found;
  }

  /** Reads on if it can be read, and goes back if not. */
  when(read: () => boolean): boolean {
    return this.try(() => (read() ? true : null)) !== null;
  }

  /** Whether it could be read from here; stays here. */
  ahead(read: () => boolean): boolean {
    const from = this.at;
    const can = read();
    this.at = from;
    return can;
  }

  /** A word that may stand there and says nothing of its own: it is not what anyone would miss. */
  filler(...choices: readonly string[]): boolean {
    return this.found(choices);
  }

  /** One of these words, the first of which is what is said to be expected; "working day" is two words. */
  word(...choices: readonly string[]): boolean {
    if (this.found(choices)) return true;
    this.expect(choices[0] as string);
    return false;
  }

  private found(choices: readonly string[]): boolean {
    const token = this.tokens[this.at];
    if (token?.kind !== 'word') return false;
    // The longest that fits: "last day" before "last".
    let longest = 0;
    for (const choice of choices) {
      // Most begin otherwise, and are not looked at any further.
      if (!choice.startsWith(token.text)) continue;
      const words = wordsOf(choice);
      if (words.length > longest && words.every((word, i) => this.isWord(this.at + i, word))) longest = words.length;
    }
    this.at += longest;
    return longest > 0;
  }

  private isWord(at: number, word: string): boolean {
    const token = this.tokens[at];
    return token?.kind === 'word' && token.text === word;
  }

  mark(...choices: readonly string[]): boolean {
    const token = this.tokens[this.at];
    if (token?.kind !== 'mark' || !choices.includes(token.text)) return false;
    this.at++;
    return true;
  }

  weekday(): number | null {
    return this.named('[a weekday]', weekdayNamed);
  }

  month(): number | null {
    return this.named('[a month]', monthNamed);
  }

  /** A whole number, in figures or as a word. */
  number(): number | null {
    const token = this.tokens[this.at];
    if (token?.kind === 'number') {
      this.at++;
      return token.value;
    }
    return this.named('[a number]', cardinalNamed);
  }

  /** An ordinal, in figures ("15th") or as a word ("third"). */
  ordinal(): { readonly n: number; readonly inFigures: boolean } | null {
    const token = this.tokens[this.at];
    if (token?.kind === 'ordinal') {
      this.at++;
      return { n: token.value, inFigures: true };
    }
    const n = this.named('[a day like “15th”]', ordinalNamed);
    return n === null ? null : { n, inFigures: false };
  }

  /** A part of the year by the name that it has here, the longest that fits. */
  season(): NamedSeason | null {
    let found: NamedSeason | null = null;
    let longest = 0;
    for (const season of this.seasons) {
      const words = wordsOfSeason(season.name);
      const fits = words.every((word, i) => this.tokens[this.at + i]?.text.toLowerCase() === word);
      if (fits && words.length > longest) [found, longest] = [season, words.length];
    }
    this.at += longest;
    if (!found && this.seasons.length > 0) this.expect('[a season by its name]');
    return found;
  }

  /** A date in figures, a time of day, or an RRULE. */
  token<K extends 'date' | 'time' | 'rrule'>(kind: K): Extract<Token, { kind: K }> | null {
    const token = this.tokens[this.at];
    if (token?.kind !== kind) return null;
    this.at++;
    return token as Extract<Token, { kind: K }>;
  }

  /** Says that something would have fitted here. */
  expect(what: string): void {
    if (this.at > this.farthest) {
      this.farthest = this.at;
      this.wanted.clear();
    }
    if (this.at === this.farthest) this.wanted.add(what);
  }

  private named(what: string, read: (word: string) => number | null): number | null {
    const token = this.tokens[this.at];
    const found = token?.kind === 'word' ? read(token.text) : null;
    if (found === null) this.expect(what);
    else this.at++;
    return found;
  }
}

/** The words of what may stand somewhere: asked for thousands of times, and a few hundred in all. */
const split = new Map<string, readonly string[]>();

function wordsOf(choice: string): readonly string[] {
  const known = split.get(choice);
  if (known) return known;
  const words = choice.split(' ');
  split.set(choice, words);
  return words;
}
