import { BRING_WORDS, joinAnd, plural } from '../../core/index.ts';
import type { SubjectOfChanges, Telling } from '../platform/changes/subject.ts';
import { notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { mustBeAllowed } from './allowed.ts';
import { BringIn } from './entity.ts';
import { takeNewFieldsOut } from './new-fields.ts';
import type { Sum } from './sum.ts';
import { WAYS } from './ways.ts';

export const bringInChanges: SubjectOfChanges<never> = {
  entity: BringIn,
  telling: {
    ...{
      kind: 'silent',
      state: 'silent',
      fileName: 'silent',
      encoding: 'silent',
      separator: 'silent',
      rowCount: 'silent',
    },
    ...{ columns: 'silent', shape: 'silent', asked: 'silent', isRemembered: 'silent', byId: 'silent' },
    ...{ createdAt: 'silent', doneAt: 'silent', changeId: 'silent', version: 'silent' },
  } satisfies Telling<BringIn>,
  mayUndoOwn: () => false,
  reached: () => ({}),
  fieldsTaken: () => [],
  async undo(scope, changes, rest) {
    await rest();
    const said: string[] = [];
    for (const { subjectId } of changes) said.push(await takeOut(scope, subjectId));
    return { said: said.join(' '), kept: [] };
  },
};

/** Names that are told of those that stay. */
const TOLD = 3;

/** Takes out what a file brought in and puts back what it changed; what others have worked with since stays, and is named. */
async function takeOut(scope: Scope, id: string): Promise<string> {
  const bringIn = await scope.locked(BringIn, id, 'file');
  mustBeAllowed(scope, bringIn.kind);
  if (bringIn.state !== 'done') throw notNow('That was taken out already.');
  const sum: Sum = { out: 0, back: 0, stay: new Set(), restored: new Set() };
  await WAYS[bringIn.kind].takeOut(scope, bringIn, sum);
  for (const name of await takeNewFieldsOut(scope, bringIn)) sum.stay.add(`the field ${name}`);
  await scope.save(BringIn, id, { state: 'undone', version: bringIn.version + 1 });
  await scope.tell(...WAYS[bringIn.kind].topics);
  const kept = sum.stay.size - TOLD;
  const { one, many } = BRING_WORDS[bringIn.kind];
  return [
    sum.out === 0 && sum.back > 0
      ? `${bringIn.fileName} is taken out again`
      : `${plural(sum.out, one, many)} of ${bringIn.fileName} ${sum.out === 1 ? 'is' : 'are'} taken out again`,
    sum.back > 0 ? `, ${sum.back} ${sum.back === 1 ? 'is' : 'are'} as before` : '',
    sum.stay.size > 0
      ? `; what has been changed or given work since stays: ${joinAnd([...[...sum.stay].slice(0, TOLD), ...(kept > 0 ? [`${kept} more`] : [])])}`
      : '',
    '.',
  ].join('');
}
