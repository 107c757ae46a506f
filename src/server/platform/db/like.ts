/** Letters as LIKE takes them: its own signs stand for themselves. */
export function likeLetters(text: string): string {
  return text.replace(/[\\%_]/g, '\\$&');
}

/** Patterns of words that are looked for anywhere in plain words, each once, the longest first: it is what fewest have. */
export function patternsOf(words: readonly string[]): string[] {
  return [...new Set(words.filter(Boolean))]
    .sort((a, b) => b.length - a.length)
    .map((word) => `%${likeLetters(word)}%`);
}
