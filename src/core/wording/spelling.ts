/** Levenshtein's distance: how many letters must be put in, taken out or changed. */
export function editDistance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++) {
      const swap = (row[j - 1] as number) + (a[i - 1] === b[j - 1] ? 0 : 1);
      next.push(Math.min(swap, (row[j] as number) + 1, (next[j - 1] as number) + 1));
    }
    row = next;
  }
  return row[b.length] as number;
}

/** Whether one letter put in, taken out or changed, or two neighbours that change places, make one word of the other. */
export function isOneEditAway(a: string, b: string): boolean {
  if (Math.abs(a.length - b.length) > 1) return false;
  let from = 0;
  while (from < a.length && a[from] === b[from]) from++;
  if (from === a.length && from === b.length) return false;
  const rest = (text: string, at: number) => text.slice(at);
  return (
    rest(a, from + 1) === rest(b, from + 1) ||
    rest(a, from + 1) === rest(b, from) ||
    rest(a, from) === rest(b, from + 1) ||
    (a[from] === b[from + 1] && a[from + 1] === b[from] && rest(a, from + 2) === rest(b, from + 2))
  );
}

/** The word that a typed one may have been meant for, by a few letters, whatever their case; null where none is near. */
export function nearestWord(typed: string, words: readonly string[]): string | null {
  const text = typed.trim().toLowerCase().slice(0, LONGEST_COMPARED);
  const [best] = words
    .map((word) => ({ word, distance: editDistance(text, word.toLowerCase()) }))
    .sort((a, b) => a.distance - b.distance);
  return best && best.distance <= Math.max(2, text.length / 4) ? best.word : null;
}

/** What is longer is compared by how it begins. */
const LONGEST_COMPARED = 60;
