import type { BringField } from './fields.ts';
import { nameKey } from './people-names.ts';
import { readFileState } from './task-state.ts';

/** Words alone: "E-mail" is "e mail". */
const plain = (text: string) => nameKey(text.replace(/[^\p{L}\p{N}]+/gu, ' '));

const MAIL = /^[^\s@]+@[^\s@]+\.[^\s@]+$/;
const TELEPHONE = /^\+?[\d\s()/.-]{6,20}$/;
/** Shares of the samples of a column that must look like it. */
const MOST_OF_THEM = 0.6;

/**
 * What each column of a file most likely becomes: by its name, else by what stands in it. No field is given twice; null for a
 * column that stays out.
 * @param samples the first cells of each column
 */
export function guessColumns(
  fields: readonly BringField[],
  names: readonly string[],
  samples: readonly (readonly string[])[],
): (string | null)[] {
  const scores = names.flatMap((name, column) =>
    fields.map((field) => ({ column, key: field.key, score: scoreOf(field, plain(name), samples[column] ?? []) })),
  );
  const guessed: (string | null)[] = names.map(() => null);
  const taken = new Set<string>();
  // Stable: of two that fit as well, the column and the field that come first.
  for (const { column, key } of scores.filter(({ score }) => score > 0).sort((a, b) => b.score - a.score)) {
    if (guessed[column] !== null || taken.has(key)) continue;
    guessed[column] = key;
    taken.add(key);
  }
  return guessed;
}

function scoreOf(field: BringField, name: string, cells: readonly string[]): number {
  const names = [plain(field.name), ...field.alsoCalled];
  if (name !== '' && name === names[0]) return 6;
  // Words that say what became of it are that, whatever the column is called.
  if (field.key === 'state' && saysState(cells)) return 5;
  if (name !== '' && names.includes(name)) return 4;
  const looks = looksLike(field, cells);
  if (looks) return 3;
  const words = name.split(' ');
  return name !== '' && names.some((one) => one.split(' ').every((word) => words.includes(word))) ? 2 : 0;
}

function saysState(cells: readonly string[]): boolean {
  const said = cells.filter((cell) => cell.trim() !== '');
  return said.length > 0 && said.every((cell) => readFileState(cell) !== null);
}

function looksLike({ key }: BringField, cells: readonly string[]): boolean {
  const form = key === 'email' ? MAIL : key === 'telephone' ? TELEPHONE : null;
  const said = cells.map((cell) => cell.trim()).filter(Boolean);
  if (form === null || said.length === 0) return false;
  // Figures alone are as well an account number.
  const isSpaced = key !== 'telephone' || said.some((cell) => /[\s+()/-]/.test(cell) || /^0\d{8,}$/.test(cell));
  return isSpaced && said.filter((cell) => form.test(cell)).length >= said.length * MOST_OF_THEM;
}
