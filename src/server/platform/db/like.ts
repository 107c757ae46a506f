/** Letters as LIKE takes them: its own signs stand for themselves. */
export function likeLetters(text: string): string {
  return text.replace(/[\\%_]/g, '\\$&');
}
