import { type LetterInput, MOST_LETTERS, type NoticeLetter } from '../../contract/index.ts';
import type { FieldChanges } from '../platform/changes/entity.ts';
import { fieldsBefore } from '../platform/changes/entity.ts';
import { changedMeanwhile, invalid, notFound } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import { NoticeLetterRecord } from './entity.ts';

const asTold = ({ id, name, workType, language, subject, body, version }: NoticeLetterRecord): NoticeLetter => ({
  ...{ id, name, workType, language, subject, version },
  body: body.map(({ kind, runs }) => ({ kind, runs: [...runs] })),
});

async function lettersThere(scope: Scope): Promise<NoticeLetterRecord[]> {
  const found = await scope.find(NoticeLetterRecord);
  return found.filter(({ deletedAt }) => deletedAt === null).sort((a, b) => a.name.localeCompare(b.name));
}

export async function listLetters(scope: Scope): Promise<{ letters: NoticeLetter[] }> {
  return { letters: (await lettersThere(scope)).map(asTold) };
}

/** A letter as it is kept, held until the transaction ends. @throws Refusal where it is gone, or another than was seen */
export async function lockedLetter(scope: Scope, id: string, version: number | null): Promise<NoticeLetterRecord> {
  const letter = await scope.locked(NoticeLetterRecord, id, 'letter');
  if (letter.deletedAt !== null) throw notFound('letter');
  if (version !== null && letter.version !== version)
    throw changedMeanwhile('The letter was changed by someone else meanwhile: look at it once more.');
  return letter;
}

export function addLetter(scope: Scope, input: LetterInput): Promise<{ letter: NoticeLetter; changeId: string }> {
  return scope.transaction(async (tx) => {
    await tx.lockedWorkspace();
    const there = await lettersThere(tx);
    if (there.length >= MOST_LETTERS)
      throw invalid([{ path: 'name', message: `${MOST_LETTERS} letters at most: drop one first.` }]);
    mustFit(tx, input, there);
    const letter = await tx.insert(NoticeLetterRecord, { id: tx.newId(), ...input, version: 1, deletedAt: null });
    const changeId = await tx.record('letter', letter.id, 'added', {});
    await tx.tell('workspace');
    return { letter: asTold(letter), changeId };
  });
}

export function changeLetter(
  scope: Scope,
  id: string,
  { version, ...input }: LetterInput & { readonly version: number },
): Promise<{ letter: NoticeLetter; changeId: string }> {
  return scope.transaction(async (tx) => {
    await tx.lockedWorkspace();
    const letter = await lockedLetter(tx, id, version);
    mustFit(
      tx,
      input,
      (await lettersThere(tx)).filter((other) => other.id !== id),
    );
    const fields = fieldChanges(letter, input);
    await tx.save(NoticeLetterRecord, id, { ...input, version: letter.version + 1 });
    const changeId = await tx.record('letter', id, 'changed', fields);
    await tx.tell('workspace');
    return { letter: asTold({ ...letter, ...input, version: letter.version + 1 }), changeId };
  });
}

export function dropLetter(scope: Scope, id: string): Promise<{ changeId: string }> {
  return scope.transaction(async (tx) => {
    const letter = await lockedLetter(tx, id, null);
    const gone = { deletedAt: tx.instant };
    await tx.save(NoticeLetterRecord, id, { ...gone, version: letter.version + 1 });
    const changeId = await tx.record('letter', id, 'dropped', fieldChanges(letter, gone));
    await tx.tell('workspace');
    return { changeId };
  });
}

/** Puts back what a change of a letter found. @returns what is said of it */
export async function undoLetter(scope: Scope, id: string, fields: FieldChanges, isAdded: boolean): Promise<string> {
  const letter = await scope.locked(NoticeLetterRecord, id, 'letter');
  const before = isAdded ? { deletedAt: scope.instant } : fieldsBefore(letter, fields);
  await scope.save(NoticeLetterRecord, id, { ...before, version: letter.version + 1 });
  await scope.record('letter', id, 'undone', fieldChanges(letter, before));
  await scope.tell('workspace');
  return isAdded ? `The letter “${letter.name}” is gone again.` : `The letter “${letter.name}” is as it was.`;
}

function mustFit(scope: Scope, { name, workType }: LetterInput, others: readonly NoticeLetterRecord[]): void {
  if (others.some((other) => other.name.toLowerCase() === name.toLowerCase()))
    throw invalid([{ path: 'name', message: `There is a letter “${name}” already.` }]);
  if (workType !== null && !scope.workspace.workTypes.includes(workType))
    throw invalid([{ path: 'workType', message: `“${workType}” is no type of work here.` }]);
}
