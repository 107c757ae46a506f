import { fieldsBefore } from '../platform/changes/entity.ts';
import { fieldsOf, type SubjectOfChanges, type Telling } from '../platform/changes/subject.ts';
import { deleteUnlessNamed } from '../platform/db/unless-named.ts';
import { Person } from '../platform/identity/person.ts';
import { forbidden, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { writeMember } from './members.ts';

export const personChanges: SubjectOfChanges<never> = {
  entity: Person,
  telling: {
    name: 'told',
    email: 'told',
    telephone: 'told',
    roles: 'told',
    team: 'told',
    access: 'told',
    weeks: 'told',
    weeksFrom: 'silent',
    shifts: 'told',
    shiftChanges: 'told',
    worksFrom: 'told',
    worksUntil: 'told',
    deputyId: 'told',
    tickets: 'told',
    accountId: 'silent',
    // Each sets their own, for their own eyes.
    ways: 'silent',
    version: 'silent',
  } satisfies Telling<Person>,
  mayUndoOwn: () => false,
  reached: () => ({}),
  fieldsTaken: fieldsOf,
  async undo(scope, changes, rest) {
    if (!scope.mayAll('people')) throw forbidden('Only a manager can change people.');
    const said: string[] = [];
    // Who is there tells who has what: that stands before their work is put back, which comes before they go.
    for (const { subjectId, fields } of changes.filter(({ action }) => action !== 'added')) {
      const person = await scope.locked(Person, subjectId, 'person');
      await writeMember(scope, person, fieldsBefore(person, fields), 'undone');
      said.push(`${person.name} is as before`);
    }
    await rest();
    for (const { subjectId } of changes.filter(({ action }) => action === 'added'))
      said.push(await takeOut(scope, await scope.locked(Person, subjectId, 'person')));
    return { said: `${said.join('; ')}.`, kept: [] };
  },
};

/** Somebody who was added and has done nothing, and been given nothing, is gone again. */
async function takeOut(scope: Scope, person: Person): Promise<string> {
  const { name, accountId } = person;
  if (accountId !== null) throw notNow(`${name} signs in already: set a last day instead.`);
  if (!(await takeOutMember(scope, person)))
    throw notNow(`${name} has been given work meanwhile: set a last day instead.`);
  await scope.tell('workspace');
  return `${name} is not here any more`;
}

/** @returns false where something names them, or they sign in */
export async function takeOutMember(scope: Scope, { id, accountId }: Person): Promise<boolean> {
  if (accountId !== null) return false;
  // Orders of turns and the like name people too, which no key of the database sees.
  const [named] = await scope.sql(
    `select 1 from schedule where workspace_id = $1
       and (assignment::text || exceptions::text || revisions::text) like '%' || $2::text || '%' limit 1`,
    [id],
  );
  return named === undefined && deleteUnlessNamed(scope, 'person', id);
}
