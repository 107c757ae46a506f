/** What became of a task, as far as bringing it in goes. */
export type FileState = 'open' | 'done' | 'skipped';

/** Words by which lists say it, our own and those of others, in small letters. */
const WORDS: Readonly<Record<FileState, readonly string[]>> = {
  open: [
    'open',
    'coming',
    'late',
    'held up',
    'under way',
    'underway',
    'in progress',
    'new',
    'to do',
    'planned',
    'pending',
  ],
  done: ['done', 'finished', 'complete', 'completed', 'closed', 'yes', 'ok', 'to check', 'tocheck'],
  skipped: ['skipped', 'lapsed', 'missed', 'cancelled', 'canceled', 'not done', 'no'],
};

/** The state that a cell says; null where that can't be told. */
export function readFileState(text: string): FileState | null {
  const said = text.trim().toLowerCase();
  return (Object.keys(WORDS) as FileState[]).find((state) => WORDS[state].includes(said)) ?? null;
}
