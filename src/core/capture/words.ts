/** A word of a line, as it was typed, and its place. */
export interface Word {
  readonly at: number;
  readonly end: number;
  /** In small letters, without the commas and stops around it. */
  readonly plain: string;
}

/** The words of a line in their order. */
export function wordsOf(text: string): Word[] {
  return [...text.matchAll(/\S+/g)].map((match) => ({
    at: match.index,
    end: match.index + match[0].length,
    plain: plainWord(match[0]),
  }));
}

/** Apostrophes are typed in two ways, and the comma after a word is not a part of it. */
export function plainWord(text: string): string {
  return text
    .toLowerCase()
    .replaceAll('’', "'")
    .replace(/^[,;.(“"]+|[,;.)”"!?]+$/g, '');
}

/** The plain words of a name. */
export function plainWords(name: string): string[] {
  return wordsOf(name).map(({ plain }) => plain);
}
